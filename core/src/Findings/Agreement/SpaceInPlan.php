<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Agreement;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Fix;
use Vestigon\Core\Findings\PlanRule;
use Vestigon\Core\Findings\PlanWords;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Plan\Parameter;
use Vestigon\Core\Plan\Plan;

/**
 * space-in-value: a plan that wants a space gets it in several spellings (common practice: none). A word of the key's
 * own list is as it was agreed.
 */
final readonly class SpaceInPlan implements PlanRule
{
    public function check(Plan $plan): iterable
    {
        return PlanWords::check($plan, static function (Parameter $parameter, string $word): ?Finding {
            $tidy = PlanWords::tidy($word);

            return preg_match('/\s/u', $word) !== 1 || $parameter->vocabulary->has($word)
                ? null
                : new Finding(
                    'space-in-value',
                    Severity::Warning,
                    "“{$word}” has a space, which arrives in several spellings.",
                    key: $parameter->key,
                    fix: new Fix("write {$tidy}", $tidy),
                );
        });
    }
}
