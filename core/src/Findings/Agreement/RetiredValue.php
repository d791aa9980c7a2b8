<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Agreement;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\PlanRule;
use Vestigon\Core\Findings\PlanWords;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Plan\Plan;

/** retired-value: the plan wants a word that is no longer used. */
final readonly class RetiredValue implements PlanRule
{
    public function check(Plan $plan): iterable
    {
        foreach ($plan->parameters as $parameter) {
            foreach (PlanWords::of($plan, $parameter->key) as $word) {
                if ($parameter->vocabulary->isRetired($word)) {
                    $next = $parameter->vocabulary->successor($word);
                    yield new Finding('retired-value', Severity::Warning, "“{$word}” is retired for {$parameter->key}".($next === null ? '.' : "; {$next} has taken its place."), key: $parameter->key);
                }
            }
        }
    }
}
