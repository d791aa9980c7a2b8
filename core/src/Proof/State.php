<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

/** Does an ad keep the agreement? */
enum State: string
{
    /** Every click that it can get arrives with the truth. */
    case Proven = 'proven';
    /** Some click does not. */
    case Broken = 'broken';
    /** No click carries any key of the plan. */
    case Untracked = 'untracked';
}
