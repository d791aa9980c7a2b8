<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

/** Knows one thing that can be wrong with the texts of an ad and of all above it, taken together. */
interface PathRule
{
    /** @return iterable<Finding> */
    public function check(Standing $standing): iterable;
}
