<?php

namespace App\Models;

/** How far an intake is. */
enum IntakeStatus: string
{
    /** Files are coming in. */
    case Open = 'open';
    /** Every row is being read. */
    case Reading = 'reading';
    /** It is known what the rows make; nothing of it is stored yet. */
    case Read = 'read';
    /** It is being imported, or was. */
    case Begun = 'begun';
}
