<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

/** The kinds of places where a platform takes tracking text. */
enum SlotKind: string
{
    case Template = 'template';
    case Suffix = 'suffix';
    case Landing = 'landing';
}
