<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Agreement;

use Vestigon\Core\Findings\PlanRule;
use Vestigon\Core\Findings\PlanWords;
use Vestigon\Core\Plan\Plan;

/** retired-value: the plan wants a word that is no longer used. */
final readonly class RetiredValue implements PlanRule
{
    public function check(Plan $plan): iterable
    {
        foreach ($plan->parameters as $parameter) {
            foreach (PlanWords::of($plan, $parameter->key) as $word) {
                $said = PlanWords::told($parameter, $word);
                if ($said?->code === 'retired-value') {
                    yield $said;
                }
            }
        }
    }
}
