<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Plan;

/**
 * Computes the writes after which every click of every ad arrives with the truth.
 */
final class Compiler
{
    public static function compile(Account $account, Plan $plan, Policy $policy = new Policy): Compiled
    {
        $ways = $policy->carrier === Carrier::Fewest ? self::carriers($account) : [$policy->carrier];
        $nothing = (new Draft($account, $plan, $policy->existing, $ways[0]))->nothing();
        if ($nothing->unmet === []) {
            return $nothing;
        }
        $drafts = [];
        $least = count($nothing->unmet);
        foreach ($ways as $carrier) {
            if ($least === 0 && $carrier === Carrier::Landing) {
                continue; // the last resort: what is written into landing URLs does not reach the ads of tomorrow
            }
            $draft = new Draft($account, $plan, $policy->existing, $carrier);
            $drafts[] = [$draft, count($draft->compiled()->unmet), $carrier];
            $least = min($least, $drafts[count($drafts) - 1][1]);
        }
        $best = [[count($nothing->unmet), false, 0], $nothing];
        foreach ($drafts as [$draft, $unmet, $carrier]) {
            if ($unmet > $least) {
                continue;
            }
            $found = $draft->least();
            $rank = [count($found->unmet), $carrier === Carrier::Landing, count($found->writes)];
            if ($rank < $best[0]) {
                $best = [$rank, $found];
            }
        }

        return $best[1];
    }

    /** @return list<Carrier> the ways that the platform has, the usual one first */
    private static function carriers(Account $account): array
    {
        $has = static fn (SlotKind $kind): bool => $account->dialect->slot($kind) !== null;

        return array_values(array_filter([$has(SlotKind::Suffix) ? Carrier::Suffix : null, $has(SlotKind::Template) ? Carrier::Template : null, Carrier::Landing]));
    }
}
