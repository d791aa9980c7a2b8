<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** All that comes of events, kept as documents. */
final class Gathered implements Told
{
    /** @var list<array<string, mixed>> */
    public array $sessions = [];

    /** @var list<array<string, mixed>> */
    public array $conversions = [];

    /** @var list<string> ids */
    public array $repeated = [];

    public function session(Session $session): void
    {
        $this->sessions[] = $session->toArray();
    }

    public function conversion(Conversion $conversion): void
    {
        $this->conversions[] = $conversion->toArray();
    }

    public function repeated(Event $event): void
    {
        $this->repeated[] = $event->id;
    }
}
