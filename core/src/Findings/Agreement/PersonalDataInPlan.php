<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Agreement;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Personal;
use Vestigon\Core\Findings\PlanRule;
use Vestigon\Core\Findings\PlanWords;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Plan\Parameter;
use Vestigon\Core\Plan\Plan;

/** personal-data: an e-mail address or a phone number that a plan wants in every URL. */
final readonly class PersonalDataInPlan implements PlanRule
{
    public function check(Plan $plan): iterable
    {
        return PlanWords::check($plan, static function (Parameter $parameter, string $word): ?Finding {
            $what = Personal::in($word);

            return $what === []
                ? null
                : new Finding(
                    'personal-data',
                    Severity::Warning,
                    "{$parameter->key} would hold what looks like {$what[0]}.",
                    key: $parameter->key,
                );
        });
    }
}
