<?php

declare(strict_types=1);

namespace Vestigon\Core\Account;

/** Why a slot's text counts or does not. */
enum LayerState: string
{
    case Counts = 'counts';
    /** A narrower level has its own text. */
    case Hidden = 'hidden';
    /** The campaign's type does not read the slot here. */
    case TypeIgnores = 'type-ignores';
    /** The platform has no such slot on this level. */
    case NoSuchPlace = 'no-such-place';
}
