<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Node;

/** A counterexample, the ad that shows it, and how many ads share it. */
final class Broken
{
    public function __construct(
        public readonly Node $ad,
        public readonly Counterexample $example,
        public int $ads = 0,
    ) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['ad' => $this->ad->id, ...$this->example->toArray(), 'ads' => $this->ads];
    }
}
