<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

/** Knows one thing that can be wrong with a click. */
interface ClickRule
{
    /** Can what it finds break the agreement? Then proofs ask it too. */
    public function breaks(): bool;

    /** @return iterable<Flaw> */
    public function check(Click $click): iterable;
}
