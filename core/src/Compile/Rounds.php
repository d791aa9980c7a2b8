<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Today;

/** The writes of two compilations, one after the other, as if they were of one; held against the account as it was before the first. */
final class Rounds
{
    public static function joined(Scope $scope, Plan $plan, Existing $existing, Compiled $first, Compiled $second): Compiled
    {
        $account = $scope->account;
        $writes = $overridden = [];
        foreach ([...$first->writes, ...$second->writes] as $write) {
            $place = $write->place();
            $writes[$place] = isset($writes[$place]) ? $write->instead($writes[$place]->before) : $write;
        }
        $writes = array_values(array_filter($writes, static fn (Write $w): bool => $w->before !== $w->after));
        $depth = static fn (Write $w): array => [$w->slot !== null, $account->dialect->level($account->nodes[$w->node]->level)->depth ?? 0];
        usort($writes, static fn (Write $a, Write $b): int => $depth($a) <=> $depth($b));
        $needed = Needed::of($account, Write::changed($account, $writes), $writes, $plan, new Today($scope->today(), $existing === Existing::Keep));
        $places = array_fill_keys(array_map(static fn (Write $w): string => $w->place(), [...$first->overridden, ...$second->overridden]), true);
        foreach ($needed->writes as $write) {
            if (isset($places[$write->place()])) {
                $overridden[] = $write;
            }
        }
        $untrue = Untrue::in($account->with($needed->after), $plan, $first->kept, $needed->verdicts);

        return new Compiled($needed->writes, self::with($untrue, $second->unmet), $first->kept, $overridden, $first->was, $needed->verdicts);
    }

    /**
     * @param list<Unmet> $untrue what is not true in the end
     * @param list<Unmet> $said what was said of it, and of what there was no room for
     * @return list<Unmet>
     */
    private static function with(array $untrue, array $said): array
    {
        $known = array_fill_keys(array_map(static fn (Unmet $u): string => "{$u->node} {$u->key}", $untrue), true);

        return [...$untrue, ...array_values(array_filter($said, static fn (Unmet $u): bool => ! isset($known["{$u->node} {$u->key}"])))];
    }
}
