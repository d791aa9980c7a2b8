<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Proof\State;
use Vestigon\Core\Proof\Survey;

/**
 * Mends ads one by one that no way of carrying the plan brings in line: where a key is still missing or wrong, each
 * text that could give it is tried on the ad and on what stands closely above it (Candidates). What mends it and makes
 * nothing worse is taken.
 *
 * Of many ads with the same faults some are tried; if none of those can be mended, the others are left.
 */
final class Mending
{
    /** So many ads in a row with the same faults that can't be mended, and no more of them are tried. */
    private const TRIED = 5;

    /** A text that more ads than this share is not mended for the sake of one. */
    private const MOST_SHARING = 20;

    /** @var array<string, array<string, true>> ad → what is wrong with it */
    private array $faults = [];

    private Account $now;

    private readonly BeyondHelp $beyond;

    private readonly Candidates $candidates;

    private function __construct(private readonly Task $task, private readonly Compiled $found)
    {
        $this->now = Write::applied($task->account, $found->writes);
        $this->beyond = new BeyondHelp($this->now, $task->plan);
        $this->candidates = new Candidates($task->account->dialect, $task->plan);
        foreach ($found->will as $ad => $verdict) {
            if ($verdict->state !== State::Proven) {
                $this->faults[$ad] = $verdict->faults();
            }
        }
    }

    public static function of(Task $task, Compiled $found): Compiled
    {
        return $found->isTrue() || $task->policy->carrier !== Carrier::Fewest
            ? $found
            : (new self($task, $found))->mended();
    }

    private function mended(): Compiled
    {
        $failed = [];
        foreach ($this->found->will as $ad => $verdict) {
            $keys = array_diff($this->keys((string) $ad), $this->task->kept->by((string) $ad));
            $kind = implode(' ', array_keys($this->faults[$ad] ?? []));
            if ($keys === [] || ($failed[$kind] ?? 0) >= self::TRIED) {
                continue;
            }
            $isMended = false;
            foreach ($keys as $key) {
                $isMended = $this->mend((string) $ad, $key) || $isMended;
            }
            $failed[$kind] = $isMended ? 0 : ($failed[$kind] ?? 0) + 1;
        }
        $writes = $this->writes();

        return $writes === null ? $this->found : $this->needed($writes);
    }

    /** @return list<string> the keys that are wrong on an ad, and might be mended */
    private function keys(string $ad): array
    {
        $verdict = $this->found->will[$ad];
        $keys = [];
        foreach ($verdict->state === State::Proven ? [] : $this->beyond->without($ad, $verdict) as $fault) {
            $keys[] = explode(' ', $fault, 2)[1];
        }

        $wanted = $this->task->plan->keys();
        if ($this->task->plan->clickIdRequired && $this->task->account->dialect->clickId !== null) {
            // first: where it is swallowed, what stands behind it is too
            array_unshift($wanted, $this->task->account->dialect->clickId->parameter);
        }

        return array_values(array_unique(array_intersect($wanted, $keys)));
    }

    private function mend(string $ad, string $key): bool
    {
        $path = $this->now->pathTo($ad);
        foreach (array_reverse($this->now->keysTo($ad)) as $at) {
            $sharing = $this->task->scope->isFixed($at) ? null : $this->adsBelow($at);
            if ($sharing === null) {
                return false;
            }
            $cleared = $alone = null;
            foreach ($this->candidates->for($this->now->nodes[$at], $path, $key) as $node) {
                $cleared ??= $this->cleared($at, $sharing, $key);
                $alone ??= $this->clearedAbove($at, $key);
                if (
                    $this->isBetter([$at => $node], $sharing)
                    || ($cleared !== [] && $this->isBetter([$at => $node] + $cleared, $sharing))
                    || ($alone !== [] && $this->isBetter([$at => $node] + $alone, $this->allBelow($alone)))
                ) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * Is an ad better off with the nodes like this, and none worse? Leaves them so if that is so.
     *
     * @param array<string, Node> $nodes
     * @param list<string> $sharing the ads that they count for
     */
    private function isBetter(array $nodes, array $sharing): bool
    {
        $tried = $this->now->with($nodes);
        $survey = new Survey($tried, $this->task->plan, today: $this->task->today());
        $at = static fn (string $node): Node => $tried->nodes[$node];
        $faults = [];
        $fewer = 0;
        foreach ($sharing as $ad) {
            $verdict = $this->task->proving->verdict($survey, $tried, $ad, $at, $this->task->today());
            $faults[$ad] = $verdict->faults();
            if (array_diff_key($faults[$ad], $this->faults[$ad] ?? []) !== []) {
                return false;
            }
            $fewer += count($this->faults[$ad] ?? []) - count($faults[$ad]);
        }
        if ($fewer === 0) {
            return false;
        }
        [$this->now, $this->faults] = [$tried, array_replace($this->faults, $faults)];

        return true;
    }

    /**
     * @param list<string> $ads
     * @return array<string, Node> what stands below a node and says a key too, without it; none where a text would be
     *     too long even then
     */
    private function cleared(string $node, array $ads, string $key): array
    {
        $cleared = [];
        foreach ($ads as $ad) {
            foreach ($this->now->keysTo($ad) as $at) {
                $clean = $this->candidates->without($this->now->nodes[$at], $key);
                if (! $this->candidates->fits($clean, $this->now->nodes[$at])) {
                    return [];
                }
                if (
                    $clean !== $this->now->nodes[$at]
                    && in_array($node, array_slice($this->now->keysTo($at), 0, -1), true)
                ) {
                    $cleared[$at] = $clean;
                }
            }
        }

        return $cleared;
    }

    /**
     * @return array<string, Node> what stands above a node and says a key, without it; none where too many share it, or
     *     a text would be too long even then
     */
    private function clearedAbove(string $node, string $key): array
    {
        $cleared = [];
        foreach (array_slice($this->now->keysTo($node), 0, -1) as $at) {
            $clean = $this->candidates->without($this->now->nodes[$at], $key);
            if ($clean === $this->now->nodes[$at]) {
                continue;
            }
            if (
                $this->task->scope->isFixed($at)
                || $this->adsBelow($at) === null
                || ! $this->candidates->fits($clean, $this->now->nodes[$at])
            ) {
                return [];
            }
            $cleared[$at] = $clean;
        }

        return $cleared;
    }

    /**
     * @param array<string, Node> $nodes on one path, the widest first
     * @return list<string>
     */
    private function allBelow(array $nodes): array
    {
        return $this->adsBelow((string) array_key_first($nodes)) ?? [];
    }

    /** @return list<string>|null the ads below a node, itself if it is one; null: too many */
    private function adsBelow(string $at): ?array
    {
        $ads = [];
        foreach ($this->now->adNodes() as $ad => $ignored) {
            if (in_array($at, $this->now->keysTo($ad), true)) {
                $ads[] = $ad;
                if (count($ads) > self::MOST_SHARING) {
                    return null;
                }
            }
        }

        return $ads;
    }

    /** @return list<Write>|null all writes, those that mend among them; null: nothing was mended */
    private function writes(): ?array
    {
        $account = $this->task->account;
        $places = [];
        foreach ($this->found->writes as $write) {
            $places[$write->place()] = $write;
        }
        $isMended = false;
        $was = Write::applied($account, $this->found->writes);
        foreach ($this->now->nodes as $key => $node) {
            foreach (
                $node === $was->nodes[$key] ? [] : Write::between((string) $key, $account->nodes[$key], $node) as $write
            ) {
                $places[$write->place()] = $write;
                $isMended = true;
            }
        }

        return $isMended
            ? array_values(array_filter($places, static fn (Write $w): bool => $w->before !== $w->after))
            : null;
    }

    /** @param list<Write> $writes */
    private function needed(array $writes): Compiled
    {
        $account = $this->task->account;
        $depth = static fn (Write $w): array => [
            $w->slot !== null,
            $account->dialect->level($account->nodes[$w->node]->level)->depth ?? 0,
        ];
        usort($writes, static fn (Write $a, Write $b): int => $depth($a) <=> $depth($b));
        $needed = Needed::of($this->task, Write::changed($account, $writes), $writes);
        $untrue = Untrue::in(
            $account->with($needed->after),
            $this->task->plan,
            $this->found->kept,
            $needed->verdicts,
        );
        $overridden = array_filter($needed->writes, static fn (Write $w): bool => $w->overrides($account));

        return new Compiled(
            $needed->writes,
            [...$untrue, ...$this->saidAbove($untrue)],
            $this->found->kept,
            array_values($overridden),
            $this->found->was,
            $needed->verdicts,
            $this->found->way,
        );
    }

    /**
     * @param list<Unmet> $untrue what is wrong on ads
     * @return list<Unmet> what was said of texts above them, where it still matters
     */
    private function saidAbove(array $untrue): array
    {
        $keys = array_fill_keys(array_map(static fn (Unmet $u): string => $u->key, $untrue), true);

        return array_values(
            array_filter(
                $this->found->unmet,
                fn (Unmet $u): bool => ! isset($this->found->will[$u->node])
                    && ($u->key === '' || isset($keys[$u->key])),
            ),
        );
    }
}
