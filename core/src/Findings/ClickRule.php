<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

/** Knows one thing that can be wrong with a click. */
interface ClickRule
{
    /** @return iterable<Flaw> */
    public function check(Click $click): iterable;
}
