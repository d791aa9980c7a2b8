<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Proof\Verdict;

/** What does not arrive with the truth in an account. */
final class Untrue
{
    /**
     * @param list<Unmet> $kept keys that stay as they are: their values are theirs
     * @param array<string, Verdict> $known verdicts of ads that were come by already
     * @return list<Unmet> by ad and key
     */
    public static function in(Account $account, Plan $plan, array $kept, array $known = [], Progress $progress = new Progress): array
    {
        $survey = new Survey($account, $plan);
        $prover = Prover::for($account, $plan);
        $theirs = [];
        foreach ($kept as $k) {
            $theirs["{$k->node} {$k->key}"] = true;
        }
        $untrue = [];
        $missing = []; // what the platform can't give, by parent: all its ads are of one campaign
        foreach ($account->adNodes() as $key => $ad) {
            $progress->ad();
            $parent = $account->parents[$key];
            foreach (($known[$key] ?? $survey->ad($ad, $parent))->counterexamples ?? [] as $fault) {
                if ($theirs === [] || ! isset($theirs["{$key} {$fault->key}"]) || $fault->code !== 'wrong-value') {
                    $untrue[] = new Unmet($key, $fault->key, $fault->reason);
                }
            }
            foreach ($missing[$parent] ??= $prover->truth($account->pathTo($key)->campaignType())->unmet as $name => $reason) {
                $untrue[] = new Unmet($key, (string) $name, $reason);
            }
        }

        return $untrue;
    }
}
