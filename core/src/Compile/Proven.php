<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Proof\Today;
use Vestigon\Core\Proof\Verdict;

/**
 * What is proven of each ad of an account, and of the same account with writes: ads that no write touches keep their
 * verdict.
 */
final class Proven
{
    /** @var array<string, Verdict>|null by ad; once it was asked for */
    private ?array $asItIs = null;

    /** @param Today $today what may be lost in nothing */
    public function __construct(
        private readonly Scope $scope,
        private readonly Plan $plan,
        private readonly Today $today,
        private readonly Proving $proving,
    ) {}

    /** @return array<string, Verdict> by ad */
    public function asItIs(Progress $progress = new Progress()): array
    {
        $isToday = $this->today->account === $this->scope->account;

        return $this->asItIs ??= Verdicts::of(
            $this->scope->account,
            $this->plan,
            $progress,
            $isToday ? null : $this->today,
        );
    }

    /** What is proven of an ad as it is, if it was asked for before. */
    public function known(string $ad): ?Verdict
    {
        return $this->asItIs[$ad] ?? null;
    }

    /**
     * @param array<string, Node> $after the nodes as they will be, where they change
     * @return array<string, Verdict> by ad
     */
    public function with(array $after, Progress $progress = new Progress()): array
    {
        $account = $this->scope->account->with($after);
        if ($this->asItIs === null) {
            return Verdicts::of($account, $this->plan, $progress, $this->today);
        }
        $survey = new Survey($account, $this->plan, today: $this->today);
        $verdicts = $this->asItIs;
        $moved = $this->moved($after);
        $progress->passed(count($verdicts) - count($moved));
        $at = static fn (string $node): Node => $account->nodes[$node];
        foreach ($moved as $key) {
            $verdicts[$key] = $this->proving->verdict($survey, $account, $key, $at, $this->today);
            $progress->ad();
        }

        return $verdicts;
    }

    /**
     * @param array<string, Node> $after
     * @return list<string> the ads that say something else, or stand under what does
     */
    private function moved(array $after): array
    {
        $account = $this->scope->account;
        $adLevel = $account->dialect->levelOf(Role::Ad)?->id;
        // what was written and left out again says what it said
        $said = static fn (string|int $key): ?string => ($account->nodes[$key] ?? null)?->saidInAll();
        $says = static fn (Node $n, string|int $key): bool => $n->saidInAll() !== $said($key);
        $after = array_filter($after, $says, ARRAY_FILTER_USE_BOTH);
        $wide = array_filter($after, static fn (Node $n): bool => $n->level !== $adLevel);
        if ($wide === []) {
            return array_map(strval(...), array_keys($after));
        }
        $below = [];
        $moved = [];
        foreach ($account->adNodes() as $key => $ad) {
            $parent = $account->parents[$key];
            if (
                isset($after[$key])
                || ($parent !== null
                    && ($below[$parent] ??=
                        array_intersect_key(array_flip($account->keysTo($parent)), $wide) !== []))
            ) {
                $moved[] = $key;
            }
        }

        return $moved;
    }
}
