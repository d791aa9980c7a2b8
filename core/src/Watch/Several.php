<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** Tells several at once. */
final readonly class Several implements Told
{
    /** @param list<Told> $all */
    public function __construct(private array $all) {}

    public function session(Session $session): void
    {
        foreach ($this->all as $told) {
            $told->session($session);
        }
    }

    public function conversion(Conversion $conversion): void
    {
        foreach ($this->all as $told) {
            $told->conversion($conversion);
        }
    }

    public function repeated(Event $event): void
    {
        foreach ($this->all as $told) {
            $told->repeated($event);
        }
    }
}
