<?php

namespace App\Models;

/** How far a file that was put in for a site is. */
enum SiteFileState: string
{
    case Waiting = 'waiting';
    /** A person is asked what its columns say. */
    case Asked = 'asked';
    case Read = 'read';
    case Failed = 'failed';
}
