<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/**
 * Searches again on what a search has left, as long as that leads on; then all writes are one change, held against the
 * account as it is today.
 */
final class Rounds
{
    private const MOST = 3;

    public static function of(Task $task): Compiled
    {
        $found = Switching::best($task);
        for ($round = 1; $round < self::MOST && $found->writes !== [] && $found->lack() !== [0, 0]; $round++) {
            $more = Switching::best($task->on($task->scope->for(Write::applied($task->account, $found->writes))));
            $both = $more->writes === [] ? $found : self::joined($task, $found, $more);
            if ($both->lack() >= $found->lack()) {
                break;
            }
            $found = $both;
        }

        return $found;
    }

    /** The writes of two searches, one after the other, as if they were of one. */
    private static function joined(Task $task, Compiled $first, Compiled $second): Compiled
    {
        $settings = Write::applied($task->account, [...$first->writes, ...$second->writes])->settings;
        $switched = $task->switched($settings);
        $account = $switched->account;
        $writes = $overridden = [];
        foreach ([...$first->writes, ...$second->writes] as $write) {
            $place = $write->place();
            $writes[$place] = isset($writes[$place]) ? $write->instead($writes[$place]->before) : $write;
        }
        $writes = array_values(
            array_filter($writes, static fn (Write $w): bool => $w->setting === null && $w->before !== $w->after),
        );
        $depth = static fn (Write $w): array => [
            $w->slot !== null,
            $account->dialect->level($account->nodes[$w->node]->level)->depth ?? 0,
        ];
        usort($writes, static fn (Write $a, Write $b): int => $depth($a) <=> $depth($b));
        $needed = Needed::of($switched, Write::changed($account, $writes), $writes);
        $places = array_fill_keys(
            array_map(static fn (Write $w): string => $w->place(), [
                ...$first->overridden,
                ...$second->overridden,
            ]),
            true,
        );
        foreach ($needed->writes as $write) {
            if (isset($places[$write->place()])) {
                $overridden[] = $write;
            }
        }
        $untrue = Untrue::in($account->with($needed->after), $task->plan, $first->kept, $needed->verdicts);

        return new Compiled(
            [...Switching::writes($task->account, $settings), ...$needed->writes],
            self::with($untrue, $second->unmet),
            $first->kept,
            $overridden,
            $first->was,
            $needed->verdicts,
            $first->way,
        );
    }

    /**
     * @param list<Unmet> $untrue what is not true in the end
     * @param list<Unmet> $said what was said of it, and of what there was no room for
     * @return list<Unmet>
     */
    private static function with(array $untrue, array $said): array
    {
        $known = array_fill_keys(array_map(static fn (Unmet $u): string => "{$u->node} {$u->key}", $untrue), true);

        return [
            ...$untrue,
            ...array_values(
                array_filter($said, static fn (Unmet $u): bool => ! isset($known["{$u->node} {$u->key}"])),
            ),
        ];
    }
}
