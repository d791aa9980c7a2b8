<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

enum EventKind: string
{
    case View = 'view';

    case Convert = 'convert';
}
