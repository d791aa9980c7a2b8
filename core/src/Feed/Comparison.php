<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

/** How a cell is compared. */
enum Comparison: string
{
    case In = 'in';
    case Has = 'has';
    case Begins = 'begins';
    case Ends = 'ends';
    case Matches = 'matches';
    case IsEmpty = 'empty';
    case Over = 'over';
    case Under = 'under';
}
