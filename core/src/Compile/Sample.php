<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Plan\Plan;

/** Some ads of an account, on which it is tried out what is best for all: no two alike, if that many differ. */
final class Sample
{
    private const ADS = 500;

    /** The account with some of its ads; the account itself if it has few. */
    public static function of(Account $account, Plan $plan): Account
    {
        $ads = 0;
        $alike = $above = $lanes = [];
        foreach ($account->adNodes() as $key => $ad) {
            $ads++;
            $parent = $account->parents[$key];
            $wide = $account->nodes[$parent] ?? null;
            $lanes[$parent] ??=
                $wide === null || $plan->variants === [] ? '' : $plan->lane($account->pathTo((string) $parent))->id;
            $looks = $ad->said().($wide?->said() ?? '').$lanes[$parent];
            if (! isset($alike[$looks]) && count($alike) < self::ADS) {
                $alike[$looks] = $key;
            }
            if ($ads > self::ADS && count($alike) === self::ADS) {
                break;
            }
        }
        if ($ads <= self::ADS) {
            return $account;
        }
        foreach ($alike as $ad) {
            foreach ($account->keysTo($ad) as $key) {
                $above[$key] = true;
            }
        }

        return $account->only($above);
    }
}
