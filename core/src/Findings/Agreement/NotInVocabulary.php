<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Agreement;

use Vestigon\Core\Findings\PlanRule;
use Vestigon\Core\Findings\PlanWords;
use Vestigon\Core\Plan\Plan;

/** not-in-vocabulary: the plan wants a word that its own list does not have. */
final readonly class NotInVocabulary implements PlanRule
{
    public function check(Plan $plan): iterable
    {
        foreach ($plan->parameters as $parameter) {
            foreach (PlanWords::of($plan, $parameter->key) as $word) {
                $said = PlanWords::told($parameter, $word);
                if ($said?->code === 'not-in-vocabulary') {
                    yield $said;
                }
            }
        }
    }
}
