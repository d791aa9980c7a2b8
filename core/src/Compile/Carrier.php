<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** The slot that carries the plan. */
enum Carrier: string
{
    /** Whichever meets more of the plan, then whichever needs fewer writes. */
    case Fewest = 'fewest';
    case Template = 'template';
    case Suffix = 'suffix';
    case Landing = 'landing';
}
