<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Harm;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Proof\Verdict;

/** What does not arrive with the truth in an account. */
final class Untrue
{
    /**
     * @param list<Unmet> $kept keys that stay as they are: their values are theirs
     * @param array<string, Verdict> $verdicts by ad
     * @return list<Unmet> by ad and key
     */
    public static function in(
        Account $account,
        Plan $plan,
        array $kept,
        array $verdicts,
        Progress $progress = new Progress(),
    ): array {
        $prover = Prover::for($account, $plan);
        $theirs = [];
        foreach ($kept as $k) {
            $theirs["{$k->node} {$k->key}"] = true;
        }
        $progress->passed(count($verdicts));
        $untrue = [];
        $parents = $account->parents;
        $missing = []; // what the platform can't give, by parent: all its ads are of one campaign
        foreach ($verdicts as $key => $verdict) {
            if ($verdict->counterexamples === [] && ($missing[$parents[$key]] ?? null) === []) {
                continue;
            }
            $key = (string) $key;
            $ungivable = $missing[$parents[$key]] ??= $prover->truthOf(
                $account->pathTo($key),
            )->unmet;
            foreach ($verdict->counterexamples as $fault) {
                $isTheirs = isset($theirs["{$key} {$fault->key}"]) && $fault->code === 'wrong-value';
                if (! $isTheirs && ($fault->code === Harm::CODE || ! isset($ungivable[$fault->key]))) {
                    $untrue[] = new Unmet($key, $fault->key, $fault->reason, $fault->code);
                }
            }
            foreach ($ungivable as $name => $reason) {
                $untrue[] = new Unmet($key, (string) $name, $reason);
            }
        }

        return $untrue;
    }
}
