<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Proof\Survey;

/** What does not arrive with the truth in an account. */
final class Untrue
{
    /**
     * @param list<Unmet> $kept keys that stay as they are: their values are theirs
     * @return list<Unmet> by ad and key
     */
    public static function in(Account $account, Plan $plan, array $kept): array
    {
        $survey = new Survey($account, $plan);
        $prover = Prover::for($account, $plan);
        $theirs = [];
        foreach ($kept as $k) {
            $theirs["{$k->node} {$k->key}"] = true;
        }
        $untrue = [];
        foreach ($account->ads() as $key => $path) {
            foreach ($survey->ad($path->last(), $account->parents[$key])->counterexamples ?? [] as $fault) {
                if (! isset($theirs["{$key} {$fault->key}"]) || $fault->code !== 'wrong-value') {
                    $untrue[] = new Unmet($key, $fault->key, $fault->reason);
                }
            }
            foreach ($prover->truth($path->campaignType())->unmet as $missing => $reason) {
                $untrue[] = new Unmet($key, (string) $missing, $reason);
            }
        }

        return $untrue;
    }
}
