<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** What a day with slashes begins with, like 05/12/2026. */
enum DayOrder: string
{
    case Day = 'day';
    case Month = 'month';
}
