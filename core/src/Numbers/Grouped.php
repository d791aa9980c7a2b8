<?php

declare(strict_types=1);

namespace Vestigon\Core\Numbers;

/**
 * Rows of one element that a report holds under several names, one line for them with the split beneath it.
 *
 * Rows stand together that are about one element and say the same in every column but those that name it and those that
 * are added up. Where they are all called the same, they stay as they are: something else keeps them apart.
 */
final readonly class Grouped
{
    /**
     * @param list<NamingColumn> $columns
     * @param list<Amounts> $amounts that are added up
     */
    public function __construct(private array $columns, private array $amounts) {}

    /**
     * @param list<array{NamedRow, list<string>}> $rows each with its cells as they are understood
     * @return list<array{cells: list<string>|null, of: non-empty-list<int>}> in the order of their first rows; cells:
     *     of the line above several rows, else null
     */
    public function lines(array $rows): array
    {
        $apart = array_fill_keys([...array_column($this->columns, 'at'), ...array_column($this->amounts, 'at')], true);
        $groups = [];
        foreach ($rows as $i => [$named, $cells]) {
            $id = $named->narrowest()?->id;
            $same = $id === null ? $i : serialize([$id, array_diff_key($cells, $apart)]);
            $groups[$same][] = $i;
        }
        $lines = [];
        foreach ($groups as $of) {
            $called = array_map(fn (int $i): array => $this->called($rows[$i][1]), $of);
            if (count(array_unique($called, SORT_REGULAR)) > 1) {
                $lines[$of[0]] = ['cells' => $this->line(array_map(static fn (int $i) => $rows[$i], $of)), 'of' => $of];
            } else {
                foreach ($of as $i) {
                    $lines[$i] = ['cells' => null, 'of' => [$i]];
                }
            }
        }
        ksort($lines);

        return array_values($lines);
    }

    /**
     * @param list<string> $cells
     * @return list<string>
     */
    private function called(array $cells): array
    {
        return array_map(static fn (NamingColumn $c): string => $cells[$c->at] ?? '', $this->columns);
    }

    /**
     * @param non-empty-list<array{NamedRow, list<string>}> $rows
     * @return list<string> as the last of them, by today's name, amounts added up
     */
    private function line(array $rows): array
    {
        [$named, $cells] = $rows[count($rows) - 1];
        foreach ($this->columns as $i => $column) {
            $one = $named->byColumn[$i];
            $cells[$column->at] = $column->by === By::Name && count($one) === 1 ? $one[0]->name : $cells[$column->at];
        }
        foreach ($this->amounts as $amount) {
            $each = array_map(static fn (array $row): string => $row[1][$amount->at] ?? '', $rows);
            $cells[$amount->at] = $amount->sum($each);
        }

        return array_values($cells);
    }
}
