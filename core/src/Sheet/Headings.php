<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** Headings as they are compared: without case, with white space folded. */
final class Headings
{
    public static function folded(string $heading): string
    {
        return mb_strtolower(trim((string) preg_replace('/[\s\p{Z}\x{FEFF}]+/u', ' ', $heading)));
    }
}
