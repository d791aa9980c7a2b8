<?php

namespace App\Numbers;

use App\Sheets\Files\FirstRows;
use App\Sheets\Files\Table;
use Vestigon\Core\Numbers\Amounts;
use Vestigon\Core\Numbers\By;
use Vestigon\Core\Numbers\NamedRow;
use Vestigon\Core\Numbers\NamingColumn;
use Vestigon\Core\Numbers\NamingColumns;
use Vestigon\Core\Sheet\Cells;
use Vestigon\Core\Sheet\HeadingRow;

/**
 * A table out of any report: which of its columns name elements, told from its first rows; and every row with what it
 * is about, read in batches.
 */
final readonly class Report
{
    /** Rows from which the columns are told. */
    public const FIRST = 2000;

    private const BATCH = 1000;

    /**
     * @param list<string> $headings
     * @param int $above rows before the first that counts
     * @param list<NamingColumn> $columns
     * @param list<Amounts> $amounts columns that can be added up
     */
    private function __construct(
        public Table $table,
        public array $headings,
        public int $above,
        public array $columns,
        public array $amounts,
        private Elements $elements,
        private Cells $cells,
    ) {}

    /** @param array<int, By|null> $told what a person has said of columns by their place */
    public static function of(Table $table, Elements $elements, array $told): self
    {
        $cells = new Cells();
        $first = FirstRows::of($table, self::FIRST);
        $finding = new NamingColumns($elements, $cells);
        $at = HeadingRow::at($first, null);
        $columns = $finding->among(array_slice($first, $at === null ? 0 : $at + 1), $told);
        if ($at !== null && self::isElement($first[$at], $columns, $elements, $cells)) {
            $at = null;
            $columns = $finding->among($first, $told);
        }
        $rows = array_slice($first, $at === null ? 0 : $at + 1);
        $headings = array_map($cells->text(...), $at === null ? [] : $first[$at]);
        $widest = max([count($headings), ...array_map(count(...), $rows), 0]);
        $amounts = [];
        for ($i = 0; $i < $widest; $i++) {
            $column = array_map(static fn (array $row): string => $cells->text($row[$i] ?? null), $rows);
            $isNaming = in_array($i, array_column($columns, 'at'), true);
            $amounts[] = $isNaming ? null : Amounts::of($i, $column, $table->form()->delimiter === ';');
        }

        return new self(
            $table,
            array_pad($headings, $widest, ''),
            $at === null ? 0 : $at + 1,
            $columns,
            array_values(array_filter($amounts)),
            $elements,
            $cells,
        );
    }

    /** @return list<int> places of amounts that are summed unless a person says otherwise */
    public function sums(): array
    {
        return array_values(array_filter(
            array_column($this->amounts, 'at'),
            fn (int $at): bool => Amounts::isSum($this->headings[$at]),
        ));
    }

    /** @return iterable<array{NamedRow, list<string>, list<string|int|float|null>}> what it is about, cells, as read */
    public function rows(): iterable
    {
        $batch = [];
        $n = 0;
        foreach ($this->table->rows() as $row) {
            if ($n++ < $this->above || $row === []) {
                continue;
            }
            $batch[] = $row;
            if (count($batch) === self::BATCH) {
                yield from $this->named($batch);
                $batch = [];
            }
        }
        yield from $this->named($batch);
    }

    /** @return iterable<list<string|int|float|null>> what stands above the first row that counts */
    public function preamble(): iterable
    {
        foreach ($this->above === 0 ? [] : $this->table->rows() as $n => $row) {
            if ($n >= $this->above) {
                return;
            }
            yield $row;
        }
    }

    /**
     * @param list<list<string|int|float|null>> $rows
     * @return iterable<array{NamedRow, list<string>, list<string|int|float|null>}>
     */
    private function named(array $rows): iterable
    {
        $texts = array_map(fn (array $row): array => array_map($this->cells->text(...), $row), $rows);
        $known = array_map(function (NamingColumn $c) use ($texts): array {
            $asked = array_filter(array_column($texts, $c->at), static fn (string $text): bool => $text !== '');

            return $this->elements->of($c->by, array_values(array_unique($asked)));
        }, $this->columns);
        foreach ($rows as $i => $row) {
            $each = array_map(
                static fn (NamingColumn $c, array $k): array => $k[$texts[$i][$c->at] ?? ''] ?? [],
                $this->columns,
                $known,
            );
            yield [NamedRow::of($this->columns, $each), $texts[$i], $row];
        }
    }

    /**
     * @param list<string|int|float|null> $row
     * @param list<NamingColumn> $columns
     */
    private static function isElement(array $row, array $columns, Elements $elements, Cells $cells): bool
    {
        foreach ($columns as $column) {
            $cell = $cells->text($row[$column->at] ?? null);
            if ($cell !== '' && $elements->of($column->by, [$cell]) !== []) {
                return true;
            }
        }

        return false;
    }
}
