<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Proof\State;

/**
 * Serves some ads apart from the rest: those that the account's way of carrying leaves untrue. Another way that does
 * better is taken for the narrowest part of the account where it does: the ad, else its group, else its campaign.
 */
final readonly class ServingApart
{
    private const TRIED_ON = 100;

    private const OF_EACH = 10;

    private Account $account;

    /** @param non-empty-list<Way> $ways */
    private function __construct(private Task $task, private array $ways)
    {
        $this->account = $task->account;
    }

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
        $apart = new self($task, $ways);
        $better = $untrue === [] ? [] : $apart->better(array_keys($untrue), $found);

        return $better === []
            ? $found
            : $apart->needed(
                array_replace($apart->split($found, array_fill_keys(array_keys($better), true)), $better),
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
        $apart = new self(
            $task->on($task->scope->for($task->account->only($above))),
            $ways,
        );
        $better = $apart->better(
            array_keys($some),
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
                    static fn (string $faults, string|int $ad): bool => $apart->partOf((string) $ad, $better)
                        !== '',
                    ARRAY_FILTER_USE_BOTH,
                ),
            ),
        );
    }

    /**
     * @param list<string|int> $ads that will not be true
     * @return array<string, Compiled> the campaigns that can be served better, each with what that takes
     */
    private function better(array $ads, Compiled $found): array
    {
        $levels = $this->account->dialect->levels;
        $campaign = $this->account->dialect->levelOf(Role::Campaign) ?? $levels[count($levels) - 1];
        $campaigns = $this->parts($campaign->id, $ads);
        $was = $this->split($found, $campaigns);
        $better = [];
        foreach ($campaigns === [] ? [] : $levels as $level) {
            foreach (
                $level->depth < $campaign->depth
                    ? []
                    : $this->split($this->on($level->id, $ads, $found), $campaigns) as $key => $share
            ) {
                // the wider, the better it serves the ads of tomorrow
                if (
                    $key !== ''
                    && $share->lack() < $was[$key]->lack()
                    && (! isset($better[$key]) || self::rank($share) < self::rank($better[$key]))
                ) {
                    $better[$key] = $share;
                }
            }
        }

        return $better;
    }

    /**
     * What comes out if every element of a level with such ads is served in the way that is best for it.
     *
     * @param list<string|int> $ads
     */
    private function on(string $level, array $ads, Compiled $found): Compiled
    {
        $parts = $this->parts($level, $ads);
        $best = $was = $this->split($found, $parts);
        $task = $this->task->on($this->asItIs($parts, $found));
        $seen = [];
        foreach ($this->ways as $way) {
            $draft = new Draft($task, $way);
            if (isset($seen[$draft->writes()])) {
                continue; // another way has said the same
            }
            $seen[$draft->writes()] = true;
            foreach ($this->split($draft->whole(), $parts) as $key => $share) {
                $best[$key] =
                    $key !== ''
                    && self::rank($share) < self::rank($best[$key])
                    && $share->lack() < $was[$key]->lack()
                        ? $share
                        : $best[$key];
            }
        }

        return self::joined($best);
    }

    /** @return list<int> the smaller, the better: what is unmet, landing URLs, writes */
    private static function rank(Compiled $share): array
    {
        return [
            ...$share->lack(),
            count(array_filter($share->writes, static fn (Write $w): bool => $w->slot === SlotKind::Landing)),
            count($share->writes),
        ];
    }

    /**
     * @param list<string|int> $ads
     * @return array<string, true> the elements of a level that they are, or stand below
     */
    private function parts(string $level, array $ads): array
    {
        $parts = [];
        foreach ($ads as $ad) {
            foreach ($this->account->keysTo((string) $ad) as $key) {
                if ($this->account->nodes[$key]->level === $level && ! $this->task->scope->isFixed($key)) {
                    $parts[$key] = true;
                }
            }
        }

        return $parts;
    }

    /**
     * The parts as they are, under what stands above them as it will be and is not to be written to.
     *
     * @param array<string, true> $parts
     */
    private function asItIs(array $parts, Compiled $found): Scope
    {
        $scope = Scope::within(
            Write::applied($this->account, $found->writes),
            array_map(strval(...), array_keys($parts)),
        );
        $inside = array_filter(
            $scope->account->nodes,
            static fn (string|int $key): bool => ! $scope->isFixed((string) $key),
            ARRAY_FILTER_USE_KEY,
        );

        return $scope
            ->for($scope->account->with(array_intersect_key($this->account->nodes, $inside)))
            ->since($this->task->scope->today());
    }

    /**
     * @param array<string, true> $parts
     * @return array<string, Compiled> what was found for each part, and for all others together under ''
     */
    private function split(Compiled $found, array $parts): array
    {
        $writes = $unmet = $overridden = array_fill_keys(['', ...array_keys($parts)], []);
        foreach ($found->writes as $write) {
            $writes[$this->partOf($write->node, $parts)][] = $write;
        }
        foreach ($found->unmet as $one) {
            $unmet[$this->partOf($one->node, $parts)][] = $one;
        }
        foreach ($found->overridden as $write) {
            $overridden[$this->partOf($write->node, $parts)][] = $write;
        }
        $shares = [];
        foreach ($writes as $part => $some) {
            $shares[$part] = new Compiled($some, $unmet[$part], [], $overridden[$part]);
        }

        return $shares;
    }

    /** @param array<string, mixed> $parts by key */
    private function partOf(string $node, array $parts): string
    {
        foreach ($this->account->keysTo($node) as $key) {
            if (isset($parts[$key])) {
                return $key;
            }
        }

        return '';
    }

    /** @param array<string, Compiled> $shares */
    private static function joined(array $shares): Compiled
    {
        $shares = array_values($shares);

        return new Compiled(
            array_merge(...array_map(static fn (Compiled $c): array => $c->writes, $shares)),
            array_merge(...array_map(static fn (Compiled $c): array => $c->unmet, $shares)),
            [],
            array_merge(...array_map(static fn (Compiled $c): array => $c->overridden, $shares)),
        );
    }

    /**
     * All together, without what nobody needs any more.
     *
     * @param array<string, Compiled> $shares
     */
    private function needed(array $shares): Compiled
    {
        $all = self::joined($shares);
        $needed = Needed::of($this->task, Write::changed($this->account, $all->writes), $all->writes);
        $overridden = array_filter(
            $all->overridden,
            static fn (Write $w): bool => in_array($w, $needed->writes, true),
        );

        return new Compiled($needed->writes, $all->unmet, [], array_values($overridden), will: $needed->verdicts);
    }
}
