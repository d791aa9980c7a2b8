<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

/** What a list of words says of one. */
enum WordStanding: string
{
    case Allowed = 'allowed';
    case Retired = 'retired';
    case Unknown = 'unknown';
}
