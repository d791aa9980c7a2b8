<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

/** One thing that a plan says otherwise than another. */
final readonly class PlanDifference
{
    /**
     * @param string|null $key null: the plan as a whole
     * @param string $place `says`, `shape`, `required`, `families`, `fallback 1` …, a platform's id; of the whole
     *     `clickId`, `order`, or `channel` and a platform family; of a variant `for`, `order`
     * @param string|null $before null: it was not there
     * @param string|null $after null: it is not there any more
     * @param string|null $variant the title of the variant that says it; null: the plan itself does
     */
    public function __construct(
        public ?string $key,
        public string $place,
        public ?string $before,
        public ?string $after,
        public ?string $variant = null,
    ) {}

    public function under(Variant $variant): self
    {
        return new self($this->key, $this->place, $this->before, $this->after, $variant->title);
    }
}
