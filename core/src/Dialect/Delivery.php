<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

enum Delivery: string
{
    /** The browser goes through every hop. */
    case Sequence = 'sequence';
    /** The browser opens the landing page at once; the hops are called in the background. */
    case Parallel = 'parallel';
}
