<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Agreement;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\PlanRule;
use Vestigon\Core\Findings\PlanWords;
use Vestigon\Core\Plan\Parameter;
use Vestigon\Core\Plan\Plan;

/** retired-value: the plan wants a word that is no longer used. */
final readonly class RetiredValue implements PlanRule
{
    public function check(Plan $plan): iterable
    {
        return PlanWords::check($plan, static function (Parameter $parameter, string $word): ?Finding {
            $told = PlanWords::told($parameter, $word);

            return $told?->code === 'retired-value' ? $told : null;
        });
    }
}
