<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Findings\Finding;

/** A finding, and how many ads or other elements show it; the finding names the first. */
final class Tally
{
    public function __construct(public readonly Finding $finding, public int $count = 0) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [...$this->finding->toArray(), 'count' => $this->count];
    }
}
