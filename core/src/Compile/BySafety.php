<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Dialect\Dialect;

/**
 * Puts writes into the order of least risk: what the account switches first; custom parameters before the texts that
 * use them; what the platform looks at again late; custom parameters that nothing uses any more are cleared last.
 * Common practice; no source.
 */
final class BySafety
{
    /**
     * @param list<Write> $writes
     * @return list<Write>
     */
    public static function ordered(array $writes, Dialect $dialect): array
    {
        $ranks = array_map(static fn (Write $w): int => self::rank($w, $dialect), $writes);
        array_multisort($ranks, array_keys($writes), $writes);

        return $writes;
    }

    private static function rank(Write $write, Dialect $dialect): int
    {
        return match (true) {
            $write->setting !== null => 0,
            $write->custom !== null => $write->after === null ? 4 : 1,
            default => self::isReviewed($write, $dialect) ? 3 : 2,
        };
    }

    /**
     * @param list<Write> $writes
     * @return array<int, Write> those after which the platform looks at an ad again, by their place in the list
     */
    public static function reviewed(array $writes, Dialect $dialect): array
    {
        return array_filter($writes, static fn (Write $w): bool => self::isReviewed($w, $dialect));
    }

    private static function isReviewed(Write $write, Dialect $dialect): bool
    {
        return $write->slot !== null && ($dialect->slot($write->slot)->reviewed ?? false);
    }
}
