<?php

namespace App\Intakes;

/** What an import would make of an element that a sheet has. */
enum Fate: string
{
    case New = 'new';
    case Changed = 'changed';
    case Same = 'same';
    /** The sheet itself says so. */
    case Gone = 'gone';
    /** It can't be taken over: the problems say why. */
    case Left = 'left';
}
