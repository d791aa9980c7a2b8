<?php

declare(strict_types=1);

namespace Vestigon\Core\Channel;

/** One rule as it sees a click. */
final readonly class RuleLook
{
    /**
     * @param int $rule which one, from 0
     * @param list<array{says: string, holds: bool}> $tests
     */
    public function __construct(public int $rule, public string $channel, public array $tests) {}

    public function takes(): bool
    {
        return array_filter($this->tests, static fn (array $t): bool => ! $t['holds']) === [];
    }
}
