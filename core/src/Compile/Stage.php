<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** When in a rollout a write is made. */
enum Stage: string
{
    /** First, on one ad or a few. */
    case Trial = 'trial';
    case Rest = 'rest';
    /** Last: what the trial left is tidied up. */
    case After = 'after';
}
