<?php

namespace App\Models;

/** What was decided of a change that came from outside. */
enum OutsideState: string
{
    case Open = 'open';
    case Accepted = 'accepted';
    /** A change of ours puts it back. */
    case Returned = 'returned';
    /** It is on the platform again as it was before. */
    case Undone = 'undone';
}
