<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Plan\Plan;

/** Knows one thing that can be wrong with an agreement by itself. */
interface PlanRule
{
    /** @return iterable<Finding> */
    public function check(Plan $plan): iterable;
}
