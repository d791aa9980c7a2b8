<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

/** How the texts of one slot on several levels become one. */
enum Inherit: string
{
    /** The narrowest level that has it. */
    case Nearest = 'nearest';
    /** All that have it, widest first, as one query. */
    case Gather = 'gather';
}
