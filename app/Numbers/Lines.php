<?php

namespace App\Numbers;

use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Numbers\Amounts;
use Vestigon\Core\Numbers\Grouped;
use Vestigon\Core\Numbers\NamedRow;

/**
 * A report's rows as lines: each for itself, or rows of one element that was renamed as one line, with the
 * split beneath it.
 *
 * @phpstan-type Read array{NamedRow, list<string>, list<string|int|float|null>}
 * @phpstan-type Line array{NamedRow, list<string>, list<string|int|float|null>, list<Read>}
 */
final class Lines
{
    /** Rows that are held to be put together. */
    public const MOST = 200_000;

    /**
     * @param list<int>|null $summed places of columns that are added up; null: every row is a line
     * @return iterable<Line> what it is about, cells, cells as read, rows beneath it
     *
     * @throws UnusableInput there are too many
     */
    public static function of(Report $report, ?array $summed): iterable
    {
        if ($summed === null) {
            foreach ($report->rows() as [$named, $cells, $row]) {
                yield [$named, $cells, $row, []];
            }

            return;
        }
        $rows = [];
        foreach ($report->rows() as $row) {
            $rows[] = $row;
            if (count($rows) > self::MOST) {
                throw new UnusableInput(
                    'more than '.number_format(self::MOST).' rows can\'t be put together. Leave them apart, or bring '
                        .'a shorter report',
                );
            }
        }
        $amounts = array_values(array_filter(
            $report->amounts,
            static fn (Amounts $a): bool => in_array($a->at, $summed, true),
        ));
        $pairs = array_map(static fn (array $r): array => [$r[0], $r[1]], $rows);
        foreach ((new Grouped($report->columns, $amounts))->lines($pairs) as ['cells' => $cells, 'of' => $of]) {
            $last = $rows[end($of)];
            yield $cells === null
                ? [...$last, []]
                : [$last[0], $cells, $cells, array_map(static fn (int $i): array => $rows[$i], $of)];
        }
    }
}
