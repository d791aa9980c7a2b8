<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

enum TokenKind: string
{
    case Landing = 'landing';
    case Value = 'value';
    /** Conditional: its text counts if a field has one of some values. */
    case When = 'when';
}
