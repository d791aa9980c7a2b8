<?php

namespace App\Models;

/** How far an import is. */
enum ImportStatus: string
{
    case Queued = 'queued';
    case Running = 'running';
    /** All is taken over; the ads are being proven. */
    case Proving = 'proving';
    case Done = 'done';
    case Failed = 'failed';

    /** @return list<self> */
    public static function open(): array
    {
        return [self::Queued, self::Running, self::Proving];
    }
}
