<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Proof\State;

/**
 * Serves some ads apart from the rest: those that the account's way of carrying leaves untrue. Another way that does
 * better is taken for the narrowest part of the account where it does: the ad, else its group, else its campaign.
 */
final class ServingApart
{
    private const TRIED_ON = 100;

    private const OF_EACH = 10;

    /** @param non-empty-list<Way> $ways the usual one first */
    public static function served(Task $task, Compiled $found, array $ways): Compiled
    {
        $theirs = array_fill_keys(
            array_map(static fn (Unmet $k): string => "{$k->node} wrong-value {$k->key}", $found->kept),
            true,
        );
        $untrue = [];
        $beyond = new BeyondHelp($task->account, $task->plan);
        foreach ($found->will as $ad => $verdict) {
            // what is kept is theirs, whatever it says
            $faults =
                $verdict->state === State::Proven
                    ? []
                    : array_filter(
                        $beyond->without((string) $ad, $verdict),
                        static fn (string $f): bool => ! isset($theirs["{$ad} {$f}"]),
                    );
            if ($faults !== []) {
                $untrue[$ad] = implode(', ', $faults);
            }
        }
        if (count($untrue) > self::TRIED_ON) {
            $untrue = array_intersect($untrue, self::curable($task, $found, $ways, $untrue));
        }
        $better = $untrue === [] ? [] : BestWays::for($task, $ways, $untrue, $found);

        return $better === []
            ? $found
            : self::needed(
                $task,
                array_replace(
                    (new Shares($task->account))->split($found, array_fill_keys(array_keys($better), true)),
                    $better,
                ),
            );
    }

    /**
     * Tries some of many ads, of each fault: most often, no way of carrying helps against it.
     *
     * @param non-empty-list<Way> $ways
     * @param array<string, string> $untrue ad → its faults
     * @return list<string> faults for which another way does better
     */
    private static function curable(Task $task, Compiled $found, array $ways, array $untrue): array
    {
        $some = $many = $above = [];
        foreach ($untrue as $ad => $faults) {
            $many[$faults] = ($many[$faults] ?? 0) + 1;
            if ($many[$faults] <= self::OF_EACH && count($some) < self::TRIED_ON) {
                $some[$ad] = $faults;
                $above += array_fill_keys($task->account->keysTo((string) $ad), true);
            }
        }
        $has = static fn (Write|Unmet $one): bool => isset($above[$one->node]);
        $sample = $task->on($task->scope->for($task->account->only($above)));
        $shares = new Shares($sample->account);
        $better = BestWays::for(
            $sample,
            $ways,
            $some,
            new Compiled(
                array_values(array_filter($found->writes, $has)),
                array_values(array_filter($found->unmet, $has)),
                [],
                [],
            ),
        );

        return array_values(
            array_unique(
                array_filter(
                    $some,
                    static fn (string $faults, string|int $ad): bool => $shares->partOf((string) $ad, $better) !== '',
                    ARRAY_FILTER_USE_BOTH,
                ),
            ),
        );
    }

    /**
     * All together, without what nobody needs any more.
     *
     * @param array<string, Compiled> $shares
     */
    private static function needed(Task $task, array $shares): Compiled
    {
        $all = Shares::joined($shares);
        $needed = Needed::of($task, Write::changed($task->account, $all->writes), $all->writes);
        $overridden = array_filter(
            $all->overridden,
            static fn (Write $w): bool => in_array($w, $needed->writes, true),
        );

        return new Compiled($needed->writes, $all->unmet, [], array_values($overridden), will: $needed->verdicts);
    }
}
