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
 * not-lowercase: a plan that wants capital letters splits a line of the report in two as soon as somebody types them
 * small (common practice: all lower case). A word of the key's own list is as it was agreed.
 */
final readonly class CapitalsInPlan implements PlanRule
{
    public function check(Plan $plan): iterable
    {
        return PlanWords::check($plan, static function (Parameter $parameter, string $word): ?Finding {
            [$lower, $tidy] = [mb_strtolower($word), PlanWords::tidy($word)];

            return $word === $lower || $parameter->vocabulary->has($word)
                ? null
                : new Finding(
                    'not-lowercase',
                    Severity::Warning,
                    "“{$word}” has capital letters: reports count it apart from “{$lower}”.",
                    key: $parameter->key,
                    fix: new Fix("write {$tidy}", $tidy),
                );
        });
    }
}
