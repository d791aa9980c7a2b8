<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Plan\Plan;

/**
 * Compiles an account that is too large for one piece.
 *
 * First it is decided, on some ads, what is written on elements that stand above several parts, and by which way the
 * plan is carried; then each part is compiled by itself, as if what was decided had been written, and held against the
 * account as it is. What the parts tell of it, Deciding learns from. It may take more writes than in one piece, where
 * ads that were not looked at would have had another text above them.
 */
final readonly class InParts
{
    public function __construct(private WholeAccount $whole, private Plan $plan, private Policy $policy) {}

    /**
     * @param Account $some ads, with all that stands above them
     * @param list<string> $above the elements that it is decided for
     */
    public function decided(Account $some, array $above, Decided $before = new Decided()): Decided
    {
        $task = $this->task($some, $above, $before, new Progress());

        return $before->and($task, Compiler::of($task), $above);
    }

    /**
     * @param Account $part with all that stands above it, as it is
     * @param list<string> $tops the widest elements of the part: these and what is below them may be written to
     */
    public function part(Account $part, array $tops, Decided $decided, Progress $progress = new Progress()): Compiled
    {
        $compiled = Compiler::of($this->task($part, $tops, $decided, $progress));

        return $decided->writesIn($part) === []
            ? $compiled
            : $compiled->from(Verdicts::of($part, $this->plan, $progress));
    }

    /** @param list<string> $tops */
    private function task(Account $part, array $tops, Decided $decided, Progress $progress): Task
    {
        return Task::within($part, $decided, $this->whole, $this->plan, $this->policy->on($tops), $progress);
    }
}
