<?php

declare(strict_types=1);

namespace Vestigon\Core\Numbers;

use Vestigon\Core\Sheet\Cells;

/**
 * Finds the columns of a report whose cells are numbers or names of known elements.
 *
 * A column is one as soon as half of its cells are known, by number before by name. Ends of numbers are looked for in
 * what is left, where each cell leaves one element alone: short numbers end as clicks do.
 */
final readonly class NamingColumns
{
    private const SHORTEST_END = 4;

    public function __construct(private Lookup $lookup, private Cells $cells = new Cells()) {}

    /**
     * @param list<list<string|int|float|null>> $rows below the heading row
     * @param array<int, By|null> $told what a person has said of columns by their place; null: it names nothing
     * @return list<NamingColumn>
     */
    public function among(array $rows, array $told = []): array
    {
        $found = [];
        $widest = max([0, ...array_map(count(...), $rows)]);
        for ($at = 0; $at < $widest; $at++) {
            $filled = array_values(array_filter(
                array_map(fn (array $row): string => $this->cells->text($row[$at] ?? null), $rows),
                static fn (string $cell): bool => $cell !== '',
            ));
            $column = array_key_exists($at, $told)
                ? ($told[$at] === null ? null : $this->by($told[$at], $at, $filled))
                : $this->likeliest($at, $filled);
            if ($column !== null) {
                $found[] = $column;
            }
        }

        return $found;
    }

    /** @param list<string> $filled */
    private function likeliest(int $at, array $filled): ?NamingColumn
    {
        foreach ([By::Number, By::Name] as $by) {
            $column = $this->by($by, $at, $filled);
            if ($column->known > 0 && $column->known * 2 >= $column->filled) {
                return $column;
            }
        }
        $end = $this->by(By::Ending, $at, $filled);

        return $end->known > 0 && $end->known === $end->filled && $end->several === 0 ? $end : null;
    }

    /** @param list<string> $filled */
    private function by(By $by, int $at, array $filled): NamingColumn
    {
        $asked = array_map(strval(...), array_keys(array_fill_keys($filled, true)));

        return NamingColumn::of($at, $by, $this->lookup->of($by, self::possible($by, $asked)), $filled);
    }

    /**
     * @param list<string> $cells
     * @return list<string> none where one of them can't be the end of a number
     */
    private static function possible(By $by, array $cells): array
    {
        $isEnd = static fn (string $c): bool => mb_strlen($c) >= self::SHORTEST_END
            && preg_match('/^[\w-]*\d[\w-]*$/', $c) === 1;

        return $by !== By::Ending || array_filter($cells, $isEnd) === $cells ? $cells : [];
    }
}
