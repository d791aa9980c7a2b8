<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;

/** Some ads of an account, on which it is tried out what is best for all: no two alike, if that many differ. */
final class Sample
{
    private const ADS = 500;

    /** The account with some of its ads; the account itself if it has few. */
    public static function of(Account $account): Account
    {
        $ads = 0;
        $alike = $above = [];
        foreach ($account->adNodes() as $key => $ad) {
            $ads++;
            $wide = $account->nodes[$account->parents[$key]] ?? null;
            $looks = $ad->said().($wide?->said() ?? '');
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
