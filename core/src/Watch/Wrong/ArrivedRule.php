<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

/** One way in which what arrives is wrong. */
interface ArrivedRule
{
    /** @return iterable<Fault> */
    public function check(Arrived $arrived, Agreed $agreed): iterable;
}
