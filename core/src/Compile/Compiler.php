<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Plan\Plan;

/**
 * Computes the writes after which every click of every ad arrives with the truth.
 *
 * Knows so far platforms where the narrowest text of a slot wins, with a query of their own for the landing URL or a template.
 */
final class Compiler
{
    public static function compile(Account $account, Plan $plan, Policy $policy = new Policy): Compiled
    {
        $ways = $policy->carrier === Carrier::Fewest ? [Carrier::Suffix, Carrier::Template] : [$policy->carrier];
        $results = array_map(static fn (Carrier $carrier): Compiled => (new Draft($account, $plan, $policy->existing, $carrier))->compiled(), $ways);
        usort($results, static fn (Compiled $a, Compiled $b): int => [count($a->unmet), count($a->writes)] <=> [count($b->unmet), count($b->writes)]);

        return $results[0];
    }
}
