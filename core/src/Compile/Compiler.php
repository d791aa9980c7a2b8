<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\Dialect;
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

    /** What one compilation has made possible, the next one does; that often at most. */
    private const MOST_ROUNDS = 3;

    public static function compile(Account $account, Plan $plan, Policy $policy = new Policy, Progress $progress = new Progress): Compiled
    {
        $scope = $policy->within === null ? Scope::whole($account) : Scope::within($account, $policy->within);
        $found = self::once($scope, $plan, $policy, $progress);
        for ($round = 1; $round < self::MOST_ROUNDS && $found->writes !== [] && $found->lack() !== [0, 0]; $round++) {
            $more = self::once($scope->for($scope->account->with(Write::changed($scope->account, $found->writes))), $plan, $policy, new Progress);
            $both = $more->writes === [] ? $found : Rounds::joined($scope, $plan, $policy->existing, $found, $more);
            if ($both->lack() >= $found->lack()) {
                break;
            }
            $found = $both;
        }

        return $found;
    }

    private static function once(Scope $scope, Plan $plan, Policy $policy, Progress $progress): Compiled
    {
        $account = $scope->account;
        $nothing = self::nothing($account, $plan, $policy->existing, $progress);
        if ($nothing->unmet === []) {
            return $nothing;
        }
        $ways = $policy->carrier === Carrier::Fewest ? self::ways($account, $policy->existing) : [new Way($policy->carrier)];
        $apart = $policy->carrier === Carrier::Fewest ? self::apart($ways) : [];
        $some = self::some($account);
        if ($some !== $account) {
            $progress->step('choosing where the plan is carried');
            $ways = [self::best($scope->for($some), $plan, $policy->existing, $ways, $apart, true, new Progress)[0]];
            $apart = $ways[0]->isLandingUrls() ? [] : $apart;
        }
        [$way, $found] = self::best($scope, $plan, $policy->existing, $ways, $apart, $some === $account, $progress);

        return self::rank($found, $way) < self::rank($nothing, null) ? $found->from($nothing->was) : $nothing;
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
     * @param non-empty-list<Way> $ways
     * @param list<Way> $apart by which some ads may be served apart from the rest; none: all alike
     * @param bool $chooses may it come to landing URLs for all, where all else leaves more untrue? false: that is decided
     * @return array{Way, Compiled}
     */
    private static function best(Scope $scope, Plan $plan, Existing $existing, array $ways, array $apart, bool $chooses, Progress $progress): array
    {
        $best = self::alike($scope, $plan, $existing, $ways, $progress);
        if ($apart === [] || $best[1]->isTrue()) {
            return $best;
        }
        $progress->step('serving some ads apart');
        $best[1] = Apart::served($scope, $plan, $best[1], $apart, $existing)->keeping($best[1]->kept);
        if (! $chooses || $best[1]->isTrue()) {
            return $best;
        }
        $landing = new Way(Carrier::Landing);
        $all = (new Draft($scope, $plan, $existing, $landing))->least();

        return self::rank($all, $landing) < self::rank($best[1], $best[0]) ? [$landing, $all] : $best;
    }

    /**
     * All ads are served the same way.
     *
     * @param non-empty-list<Way> $ways
     * @return array{Way, Compiled}
     */
    private static function alike(Scope $scope, Plan $plan, Existing $existing, array $ways, Progress $progress): array
    {
        $drafts = [];
        $least = [PHP_INT_MAX, PHP_INT_MAX];
        foreach ($ways as $way) {
            if ($least === [0, 0] && $way->isLandingUrls()) {
                continue; // the last resort: what is written into landing URLs does not reach the ads of tomorrow
            }
            $draft = new Draft($scope, $plan, $existing, $way, $progress);
            $lack = count($ways) === 1 ? [0, 0] : $draft->whole()->lack();
            $drafts[] = [$way, $draft, $lack];
            $least = min($least, $lack);
        }
        $best = null;
        foreach ($drafts as [$way, $draft, $lack]) {
            if ($lack > $least) {
                continue;
            }
            $found = $draft->least();
            if ($best === null || self::rank($found, $way) < self::rank($best[1], $best[0])) {
                $best = [$way, $found];
            }
        }

        return $best ?? throw new \LogicException('one of the ways has the least unmet');
    }

    /** @return array{int, int, bool, int} the smaller, the better */
    private static function rank(Compiled $compiled, ?Way $way): array
    {
        return [...$compiled->lack(), $way?->isLandingUrls() ?? false, count($compiled->writes)];
    }

    /**
     * The ways that the platform has, the usual one first. Landing URLs are the last resort: where there is nothing else, or where what ads send already is not to be touched.
     *
     * @return non-empty-list<Way>
     */
    private static function ways(Account $account, Existing $existing): array
    {
        $has = static fn (SlotKind $kind): bool => $account->dialect->slot($kind) !== null;
        $ways = array_values(array_filter([$has(SlotKind::Suffix) ? new Way(Carrier::Suffix) : null, $has(SlotKind::Template) ? new Way(Carrier::Template) : null, self::mayJoinOn($account->dialect) ? new Way(Carrier::Template, joinsOn: true) : null]));

        return $ways === [] || $existing === Existing::Keep ? [...$ways, new Way(Carrier::Landing)] : $ways;
    }

    /** Where a second `?` is not mended, it matters whether the page has a query. */
    private static function mayJoinOn(Dialect $dialect): bool
    {
        return $dialect->slot(SlotKind::Template) !== null && $dialect->rawLanding() !== null && ! $dialect->assembly->mendsQuestionMark;
    }

    /**
     * @param non-empty-list<Way> $ways of the account
     * @return list<Way> by which some of its ads may be served apart from the rest
     */
    private static function apart(array $ways): array
    {
        return $ways[0]->isLandingUrls() ? [] : [...$ways, ...array_map(static fn (Way $w): Way => new Way($w->carrier, true, $w->joinsOn), $ways), new Way(Carrier::Landing), Way::asItIs()];
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
