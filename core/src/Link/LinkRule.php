<?php

declare(strict_types=1);

namespace Vestigon\Core\Link;

use Vestigon\Core\Findings\Finding;

/** One thing that can be wrong with a link. */
interface LinkRule
{
    /** @return iterable<Finding> */
    public function check(Sight $sight): iterable;
}
