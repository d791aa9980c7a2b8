<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** What a plan can give way in, for one key on one platform. */
enum Give: string
{
    /** The values as they are, not in the plan's shape. */
    case AsIs = 'as-is';
    /** What the plan falls back on, at once. */
    case Fallback = 'fallback';
    /** The key is left out. */
    case Optional = 'optional';
}
