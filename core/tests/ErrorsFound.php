<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Channel\Channels;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Survey;

/** What `check` finds in an account that is an error. */
final class ErrorsFound
{
    /** @return array<string, list<Finding>> by code */
    public static function in(Account $account, Plan $plan): array
    {
        $survey = new Survey(
            $account,
            $plan,
            RuleBook::all([...array_values(Shipped::all()), $account->dialect], new Channels([], [], 'other')),
        );
        foreach ($account->adNodes() as $key => $ad) {
            $survey->ad($ad, $account->parents[$key]);
        }
        $errors = [];
        foreach ($survey->findings() as $tally) {
            if ($tally->finding->severity === Severity::Error) {
                $errors[$tally->finding->code][] = $tally->finding;
            }
        }

        return $errors;
    }
}
