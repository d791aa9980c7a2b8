<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** Finds the row of a table that holds its headings; what stands above it is the preamble. */
final class HeadingRow
{
    /** It is one of so many. */
    public const WITHIN = 40;

    /**
     * The first row with the most headings that the map knows; where none has two, the one that holds the most texts.
     *
     * @param list<list<string|int|float|null>> $rows the table's first rows
     * @param TableMap|null $map null: there is none yet
     * @return int|null its place among them, from 0; null: there is none
     */
    public static function at(array $rows, ?TableMap $map): ?int
    {
        $best = $text = null;
        $most = $map !== null && count($map->headings) === 1 ? 0 : 1;
        $mostText = 0;
        foreach (array_slice($rows, 0, self::WITHIN) as $at => $row) {
            $known = $map === null ? 0 : self::known($row, $map);
            if ($known > $most) {
                [$best, $most] = [$at, $known];
            }
            $filled = array_filter($row, static fn (mixed $cell): bool => trim((string) $cell) !== '');
            $isText = array_filter($filled, static fn (mixed $cell): bool => self::isText($cell)) === $filled;
            // a title that is merged over all columns is one text
            $different = count(array_unique($filled));
            if ($isText && $different > $mostText) {
                [$text, $mostText] = [$at, $different];
            }
        }

        return $best ?? $text;
    }

    /** @param list<list<string|int|float|null>> $rows */
    public static function mostKnown(array $rows, TableMap $map): int
    {
        return max(
            0,
            ...array_map(
                static fn (array $row): int => self::known($row, $map),
                array_slice($rows, 0, self::WITHIN),
            ),
        );
    }

    /** @param list<string|int|float|null> $row */
    private static function known(array $row, TableMap $map): int
    {
        return count(
            array_filter(
                $row,
                static fn (mixed $cell): bool => isset($map->headings[Headings::folded((string) $cell)]),
            ),
        );
    }

    private static function isText(mixed $cell): bool
    {
        return is_string($cell) && ! is_numeric(trim($cell));
    }
}
