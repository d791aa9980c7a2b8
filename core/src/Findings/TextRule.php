<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

/** Knows one thing that can be wrong with a text by itself. */
interface TextRule
{
    /** @return iterable<Finding> without the node */
    public function check(Spot $spot): iterable;
}
