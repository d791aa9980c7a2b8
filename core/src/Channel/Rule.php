<?php

declare(strict_types=1);

namespace Vestigon\Core\Channel;

/** A channel, and all that must hold of a click for it to be counted there. */
final readonly class Rule
{
    /** @param list<Test> $all */
    public function __construct(public string $channel, public array $all) {}

    /** @param \Closure(string): string $value gives the value of a key */
    public function takes(\Closure $value): bool
    {
        foreach ($this->all as $test) {
            if (! $test->isMet($value($test->key))) {
                return false;
            }
        }

        return true;
    }
}
