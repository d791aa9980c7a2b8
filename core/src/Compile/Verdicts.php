<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Proof\Today;
use Vestigon\Core\Proof\Verdict;

/** What is proven of each ad of an account. */
final class Verdicts
{
    /**
     * @param Today|null $today what may be lost in nothing; null: that is not asked
     * @return array<string, Verdict> by ad; ads alike share one
     */
    public static function of(
        Account $account,
        Plan $plan,
        Progress $progress = new Progress(),
        ?Today $today = null,
    ): array {
        $survey = new Survey($account, $plan, today: $today);
        [$verdicts, $through, $parents] = [[], 0, $account->parents];
        foreach ($account->adNodes() as $key => $ad) {
            $verdicts[$key] =
                $survey->ad($ad, $parents[$key], $today?->account->nodes[$key] ?? null)
                ?? throw new \LogicException('there is a plan');
            if (++$through === $progress->every) {
                $progress->passed($through);
                $through = 0;
            }
        }
        $progress->passed($through);

        return $verdicts;
    }
}
