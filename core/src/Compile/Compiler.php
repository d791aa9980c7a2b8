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
        $best = null;
        foreach ($ways as $carrier) {
            $found = (new Draft($account, $plan, $policy->existing, $carrier))->compiled();
            // landing URLs are the last resort: what is written there does not reach the ads of tomorrow
            $rank = [count($found->unmet), $carrier === Carrier::Landing, count($found->writes)];
            if ($best === null || $rank < $best[0]) {
                $best = [$rank, $found];
            }
        }

        return $best[1] ?? throw new \LogicException('every platform has landing URLs');
    }

    /** @return list<Carrier> the ways that the platform has, the usual one first */
    private static function carriers(Account $account): array
    {
        $has = static fn (SlotKind $kind): bool => $account->dialect->slot($kind) !== null;

        return array_values(array_filter([$has(SlotKind::Suffix) ? Carrier::Suffix : null, $has(SlotKind::Template) ? Carrier::Template : null, Carrier::Landing]));
    }
}
