<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** A conversion that counts, and for what. */
final readonly class Conversion
{
    /** @param non-empty-list<Share> $shares */
    public function __construct(public Event $event, public array $shares) {}

    /** @return array{id: string, shares: list<array<string, mixed>>} */
    public function toArray(): array
    {
        return [
            'id' => $this->event->id,
            'shares' => array_map(static fn (Share $s): array => $s->toArray(), $this->shares),
        ];
    }
}
