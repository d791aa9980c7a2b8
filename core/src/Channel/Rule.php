<?php

declare(strict_types=1);

namespace Vestigon\Core\Channel;

/** A channel, and all that must hold of a click for it to be counted there. */
final readonly class Rule
{
    /** @param list<Test> $all */
    public function __construct(public string $channel, public array $all) {}

    public function why(): string
    {
        return $this->all === []
            ? 'it takes all that is left'
            : implode(' and ', array_map(static fn (Test $t): string => $t->words(), $this->all));
    }
}
