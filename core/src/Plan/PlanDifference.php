<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

/** One thing that a plan says otherwise than another. */
final readonly class PlanDifference
{
    /**
     * @param string|null $key null: the plan as a whole
     * @param string $place `says`, `shape`, `required`, `families`, `fallback 1` …, a platform's id; of the whole
     *     `clickId`, `order`, or `channel` and a platform family
     * @param string|null $before null: it was not there
     * @param string|null $after null: it is not there any more
     */
    public function __construct(
        public ?string $key,
        public string $place,
        public ?string $before,
        public ?string $after,
    ) {}
}
