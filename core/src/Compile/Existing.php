<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** What happens to plan keys that an ad sends already. */
enum Existing: string
{
    /** They stay as they are. */
    case Keep = 'keep';
    /** Ours take their place. */
    case Replace = 'replace';
}
