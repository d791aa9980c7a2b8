<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use Vestigon\Core\Dialect\Dialect;

/**
 * How many random cases are tried. Clicks of one platform can look in so many ways that its accounts take ten times as
 * long as others: of these a share is tried each time, and all of them, as of all others, with VESTIGON_LONG=1.
 */
final class Cases
{
    private const LONG = ['pellworth-search'];

    /** @param int $all cases that are tried where time does not matter */
    public static function of(int $all, ?Dialect $dialect = null): int
    {
        $isShort = getenv('VESTIGON_LONG') !== '1' && ($dialect === null || in_array($dialect->id, self::LONG, true));

        return $isShort ? max(3, intdiv($all * 2, 5)) : $all;
    }
}
