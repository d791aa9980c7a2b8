<?php

namespace App\Sheets\Files;

/** The cells of a sheet that are merged to areas: what the first cell of an area holds, all of its cells do. */
final readonly class Merged
{
    /** @param list<array{top: int, left: int, bottom: int, right: int}> $areas rows from 1, columns from 0; by top */
    public function __construct(private array $areas) {}

    /**
     * @param iterable<list<string|int|float|null>> $rows all of the sheet's, from the first
     * @return iterable<list<string|int|float|null>>
     */
    public function filled(iterable $rows): iterable
    {
        $number = $next = 0;
        $open = []; // by left: areas that the row is in, each with what its first cell holds
        foreach ($rows as $row) {
            $number++;
            $open = array_filter($open, static fn (array $o): bool => $o[0]['bottom'] >= $number);
            for (; ($this->areas[$next]['top'] ?? null) === $number; $next++) {
                $left = $this->areas[$next]['left'];
                $open[$left] = [$this->areas[$next], $row[$left] ?? null];
            }
            foreach ($open as [$area, $value]) {
                $row = array_pad($row, $area['right'] + 1, null);
                for ($column = $area['left']; $column <= $area['right']; $column++) {
                    $row[$column] = $value;
                }
            }
            yield array_values($row);
        }
    }
}
