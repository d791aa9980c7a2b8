<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

enum AutoTagMode: string
{
    case Off = 'off';
    case Fill = 'fill';
    case Replace = 'replace';
}
