<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Agreement;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Guess;
use Vestigon\Core\Findings\PlanRule;
use Vestigon\Core\Findings\PlanWords;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Plan\Plan;

/** not-in-vocabulary: the plan wants a word that its own list does not have. */
final readonly class NotInVocabulary implements PlanRule
{
    public function check(Plan $plan): iterable
    {
        foreach ($plan->parameters as $parameter) {
            foreach (PlanWords::of($plan, $parameter->key) as $word) {
                if (! $parameter->vocabulary->knows($word)) {
                    $meant = Guess::nearest($word, $parameter->vocabulary->inUse());
                    yield new Finding('not-in-vocabulary', Severity::Warning, "“{$word}” is not among the words for {$parameter->key} (".implode(', ', $parameter->vocabulary->inUse()).')'.($meant === null ? '.' : "; {$meant} is meant, it seems."), key: $parameter->key);
                }
            }
        }
    }
}
