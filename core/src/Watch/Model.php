<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** Which of the sessions that led to a conversion it counts for. */
enum Model: string
{
    case Last = 'last';

    case First = 'first';

    case Even = 'even';
}
