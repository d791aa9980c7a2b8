<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use Vestigon\Core\Dialect\Dialect;

/**
 * How many random cases are tried. Clicks of one platform can look in so many ways that its accounts take ten times as
 * long as others: of these, and of platforms that nobody has seen, a share is tried at hand, and all of them with
 * VESTIGON_LONG=1, as .ci/run does.
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
