<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Plan;

/**
 * Computes the writes after which every click of every ad arrives with the truth.
 *
 * Which slot is to carry the plan is tried out. In an account of many ads it is tried on some of them, no two alike if that many differ.
 */
final class Compiler
{
    private const TRIED_ON = 500;

    public static function compile(Account $account, Plan $plan, Policy $policy = new Policy, Progress $progress = new Progress): Compiled
    {
        $scope = $policy->within === null ? Scope::whole($account) : Scope::within($account, $policy->within);
        $account = $scope->account;
        $nothing = self::nothing($account, $plan, $policy->existing, $progress);
        if ($nothing->unmet === []) {
            return $nothing;
        }
        $ways = $policy->carrier === Carrier::Fewest ? self::carriers($account) : [$policy->carrier];
        $some = self::some($account);
        if ($some !== $account) {
            $progress->step('choosing where the plan is carried');
            $ways = [self::best($scope->for($some), $plan, $policy->existing, $ways, new Progress)[0]];
        }
        [$carrier, $found] = self::best($scope, $plan, $policy->existing, $ways, $progress);

        return self::rank($found, $carrier) < self::rank($nothing, null) ? $found->from($nothing->was) : $nothing;
    }

    /** The account as it is, with what is not true in it. */
    private static function nothing(Account $account, Plan $plan, Existing $existing, Progress $progress): Compiled
    {
        $progress->step('proving every ad as it is');
        $verdicts = Verdicts::of($account, $plan, $progress);
        $kept = $existing === Existing::Keep ? Kept::in($account, $plan) : [];

        return new Compiled([], Untrue::in($account, $plan, $kept, $verdicts), $kept, [], $verdicts, $verdicts);
    }

    /**
     * @param non-empty-list<Carrier> $ways
     * @return array{Carrier, Compiled}
     */
    private static function best(Scope $scope, Plan $plan, Existing $existing, array $ways, Progress $progress): array
    {
        $drafts = [];
        $least = PHP_INT_MAX;
        foreach ($ways as $carrier) {
            if ($least === 0 && $carrier === Carrier::Landing) {
                continue; // the last resort: what is written into landing URLs does not reach the ads of tomorrow
            }
            $draft = new Draft($scope, $plan, $existing, $carrier, $progress);
            $unmet = count($ways) === 1 ? 0 : $draft->unmet();
            $drafts[] = [$carrier, $draft, $unmet];
            $least = min($least, $unmet);
        }
        $best = null;
        foreach ($drafts as [$carrier, $draft, $unmet]) {
            if ($unmet > $least) {
                continue;
            }
            $found = $draft->least();
            if ($best === null || self::rank($found, $carrier) < self::rank($best[1], $best[0])) {
                $best = [$carrier, $found];
            }
        }

        return $best ?? throw new \LogicException('one of the ways has the least unmet');
    }

    /** @return array{int, bool, int} the smaller, the better */
    private static function rank(Compiled $compiled, ?Carrier $carrier): array
    {
        return [count($compiled->unmet), $carrier === Carrier::Landing, count($compiled->writes)];
    }

    /** @return non-empty-list<Carrier> the ways that the platform has, the usual one first */
    private static function carriers(Account $account): array
    {
        $has = static fn (SlotKind $kind): bool => $account->dialect->slot($kind) !== null;

        return [...array_values(array_filter([$has(SlotKind::Suffix) ? Carrier::Suffix : null, $has(SlotKind::Template) ? Carrier::Template : null])), Carrier::Landing];
    }

    /** The account with some of its ads; the account itself if it has few. */
    private static function some(Account $account): Account
    {
        $ads = 0;
        $alike = $above = [];
        foreach ($account->adNodes() as $key => $ad) {
            $ads++;
            $wide = $account->nodes[$account->parents[$key]] ?? null;
            $looks = $ad->said().($wide?->said() ?? '');
            if (! isset($alike[$looks]) && count($alike) < self::TRIED_ON) {
                $alike[$looks] = $key;
            }
        }
        if ($ads <= self::TRIED_ON) {
            return $account;
        }
        foreach ($alike as $ad) {
            foreach ($account->keysTo($ad) as $key) {
                $above[$key] = true;
            }
        }

        return $account->only(static fn (Node $n, string|int $key): bool => isset($above[$key]));
    }
}
