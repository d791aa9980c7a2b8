<?php

namespace App\Changes;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\Compiled;

/** A piece of a change that was worked out. */
final readonly class WorkedPiece
{
    /** @param Account $before the piece as it is */
    public function __construct(public Account $before, public Compiled $compiled, public ToldStory $told) {}
}
