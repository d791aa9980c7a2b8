<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Dialect\Level;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Template\Distinct;

/**
 * Finds for campaigns with ads that will not be true the way that serves each best: one for all of it, or for each of
 * its groups, or of its ads.
 *
 * Of campaigns that look alike, every way is tried on a few; on the others those that were best for these, and the
 * rest only where they do not do as well. Where nothing helps the few, nothing is tried on the others.
 */
final readonly class BestWays
{
    private const ALIKE = 3;

    private Account $account;

    private Shares $shares;

    /** @var list<Level> from the campaign down */
    private array $levels;

    /** @param array<string, string> $untrue ad → its faults */
    private function __construct(private Task $task, private array $untrue, private Compiled $found)
    {
        $this->account = $task->account;
        $this->shares = new Shares($task->account);
        $levels = $task->account->dialect->levels;
        $depth = $task->account->dialect->levelOf(Role::Campaign)->depth ?? count($levels) - 1;
        $this->levels = array_values(array_filter($levels, static fn (Level $l): bool => $l->depth >= $depth));
    }

    /**
     * @param non-empty-list<Way> $ways the usual one first
     * @param array<string, string> $untrue ad → its faults
     * @return array<string, Compiled> the campaigns that can be served better, each with what that takes
     */
    public static function for(Task $task, array $ways, array $untrue, Compiled $found): array
    {
        return (new self($task, $untrue, $found))->better($ways);
    }

    /**
     * @param non-empty-list<Way> $ways
     * @return array<string, Compiled>
     */
    private function better(array $ways): array
    {
        $every = array_fill_keys(array_column($this->levels, 'id'), $ways);
        $looks = $this->looks();
        $first = $seen = [];
        foreach ($looks as $key => $look) {
            $seen[$look] = ($seen[$look] ?? 0) + 1;
            $first += $seen[$look] <= self::ALIKE ? [$key => $look] : [];
        }
        [$better, $won] = $this->bestOf($first, $every);
        $others = array_diff_key($looks, $first);
        if ($others === []) {
            return $better;
        }
        $least = [];
        foreach (array_intersect_key($better, $first) as $key => $share) {
            $least[$first[$key]] = min($share->lack(), $least[$first[$key]] ?? $share->lack());
        }
        [$alike] = $this->bestOf(array_intersect($others, array_keys($least)), $won);
        $isWorse = static fn (string $look, string|int $key): bool => isset($least[$look])
            && (($alike[$key] ?? null)?->lack() ?? [PHP_INT_MAX]) > $least[$look];
        [$apart] = $this->bestOf(array_filter($others, $isWorse, ARRAY_FILTER_USE_BOTH), $every);

        return array_replace($better, $alike, $apart);
    }

    /** @return array<string, string> the campaigns, with what they and those of their ads say that are not true */
    private function looks(): array
    {
        $faults = [];
        foreach ($this->parts($this->levels[0]->id, $this->untrue) as $ad => $campaign) {
            $faults[$campaign][$this->untrue[$ad]] = true;
        }
        $looks = [];
        foreach ($faults as $campaign => $kinds) {
            ksort($kinds);
            $node = $this->account->nodes[$campaign];
            $looks[$campaign] = Distinct::of($node->type, $node->said(), ...array_keys($kinds));
        }

        return $looks;
    }

    /**
     * @param array<string, mixed> $campaigns by key
     * @param array<string, list<Way>> $ways to try, by level
     * @return array{array<string, Compiled>, array<string, list<Way>>} the campaigns that can be served better, each
     *     with what that takes; and the ways that do so
     */
    private function bestOf(array $campaigns, array $ways): array
    {
        $campaigns = array_map(static fn (): bool => true, $campaigns);
        $ads = array_filter(
            $this->untrue,
            fn (string|int $ad): bool => $this->shares->partOf((string) $ad, $campaigns) !== '',
            ARRAY_FILTER_USE_KEY,
        );
        $was = $this->shares->split($this->found, $campaigns);
        $better = $won = [];
        foreach ($ads === [] ? [] : $this->levels as $level) {
            [$found, $used] = $this->on($level->id, $ads, $ways[$level->id] ?? []);
            foreach ($this->shares->split($found, $campaigns) as $key => $share) {
                // the wider, the better it serves the ads of tomorrow
                if (
                    $key !== ''
                    && $share->lack() < $was[$key]->lack()
                    && (! isset($better[$key]) || Shares::rank($share) < Shares::rank($better[$key]))
                ) {
                    $better[$key] = $share;
                    $won[$level->id] = $used;
                }
            }
        }

        return [$better, $won];
    }

    /**
     * What comes out if every element of a level with such ads is served in the way that is best for it.
     *
     * @param array<string, string> $ads
     * @param list<Way> $ways
     * @return array{Compiled, list<Way>} with the ways that are best for any
     */
    private function on(string $level, array $ads, array $ways): array
    {
        $parts = array_fill_keys($this->parts($level, $ads), true);
        $best = $was = $this->shares->split($this->found, $parts);
        $task = $this->task->on($this->asItIs($parts));
        $seen = $by = [];
        foreach ($ways as $way) {
            $draft = new Draft($task, $way);
            if (isset($seen[$draft->writes()])) {
                continue; // another way has said the same
            }
            $seen[$draft->writes()] = true;
            foreach ($this->shares->split($draft->whole(), $parts) as $key => $share) {
                if (
                    $key !== ''
                    && Shares::rank($share) < Shares::rank($best[$key])
                    && $share->lack() < $was[$key]->lack()
                ) {
                    [$best[$key], $by[$key]] = [$share, $way];
                }
            }
        }

        return [Shares::joined($best), array_values(array_unique($by, SORT_REGULAR))];
    }

    /**
     * @param array<string, string> $ads
     * @return array<string, string> ad → the element of a level that it is, or stands below, where that may be written
     *     to
     */
    private function parts(string $level, array $ads): array
    {
        $parts = [];
        foreach (array_keys($ads) as $ad) {
            foreach ($this->account->keysTo((string) $ad) as $key) {
                if ($this->account->nodes[$key]->level === $level && ! $this->task->scope->isFixed($key)) {
                    $parts[$ad] = $key;
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
    private function asItIs(array $parts): Scope
    {
        $scope = Scope::within(
            Write::applied($this->account, $this->found->writes),
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
}
