<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** What a row is. */
enum RowSort
{
    case Element;
    case Total;
    /** The headings once more. */
    case Headings;
    case Empty;
}
