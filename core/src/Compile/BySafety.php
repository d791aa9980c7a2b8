<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Dialect\Dialect;

/**
 * Puts writes into the order of least risk: what the account switches first, what the platform looks at again last.
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
        $reviewed = self::reviewed($writes, $dialect);

        $switches = array_filter($writes, static fn (Write $w): bool => $w->setting !== null);

        return [
            ...array_values($switches),
            ...array_values(array_diff_key($writes, $switches, $reviewed)),
            ...array_values($reviewed),
        ];
    }

    /**
     * @param list<Write> $writes
     * @return array<int, Write> those after which the platform looks at an ad again, by their place in the list
     */
    public static function reviewed(array $writes, Dialect $dialect): array
    {
        return array_filter(
            $writes,
            static fn (Write $w): bool => $w->slot !== null && ($dialect->slot($w->slot)->reviewed ?? false),
        );
    }
}
