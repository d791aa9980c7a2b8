<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Findings\Severity;

/** A table's map laid on its headings: which cell of a row means what. */
final readonly class Layout
{
    /** @var array<int, Column> by place in a row; of headings alike, the first */
    public array $columns;

    /** @var array<int, Column> those of them that hold a day or a number of it */
    public array $figures;

    /** Where the level of a row stands. */
    public ?int $kindAt;

    /** @var list<string> headings of the map that the table does not have */
    public array $missing;

    /** @var list<string> headings of the table that the map does not know */
    public array $unknown;

    /** @var list<string> as they are compared: a row that says the same repeats them */
    private array $folded;

    /**
     * @param int $at the place of the heading row, from 0
     * @param list<string|int|float|null> $headings
     */
    public function __construct(public TableMap $map, public int $at, array $headings)
    {
        $this->folded = self::folded($headings);
        $places = array_flip(array_reverse($this->folded, true));
        $columns = $missing = [];
        foreach ($map->columns as $column) {
            $place = $places[Headings::folded($column->heading)] ?? null;
            if ($place === null) {
                $missing[] = $column->heading;
            } else {
                $columns[$place] ??= $column;
            }
        }
        $this->kindAt = $map->rowKind === null ? null : $places[Headings::folded($map->rowKind->heading)] ?? null;
        if ($map->rowKind !== null && $this->kindAt === null) {
            array_unshift($missing, $map->rowKind->heading);
        }
        ksort($columns);
        $this->columns = $columns;
        $this->figures = array_filter($columns, static fn (Column $c): bool => $c->means->says === Says::Figure);
        $this->missing = array_values(array_unique($missing));
        $this->unknown = array_values(
            array_filter(
                array_map(static fn (mixed $h): string => trim((string) $h), $headings),
                static fn (string $h): bool => $h !== '' && ! isset($map->headings[Headings::folded($h)]),
            ),
        );
    }

    /**
     * @param list<list<string|int|float|null>> $rows the table's first rows
     * @param int|null $at the place of the heading row, where a person has said so; null: it is found
     * @return self|null null: it has no headings
     */
    public static function of(TableMap $map, array $rows, ?int $at = null): ?self
    {
        $at ??= HeadingRow::at($rows, $map);

        return $at === null || ! isset($rows[$at]) ? null : new self($map, $at, $rows[$at]);
    }

    /**
     * The same for a table of which it is still to be found which map is its own.
     *
     * @param list<list<string|int|float|null>> $rows the table's first rows
     * @param int|null $at as above
     * @return self|null null: no map knows any of its headings
     */
    public static function in(SheetMap $map, string $title, array $rows, ?int $at = null): ?self
    {
        $table = $map->tableFor($title, $rows);

        return $table === null ? null : self::of($table, $rows, $at);
    }

    /** @return list<Problem> the columns that are not there */
    public function problems(int $table): array
    {
        $names = array_map(static fn (Column $c): string => $c->means->name, $this->figures);
        $missing = array_map(
            fn (string $heading): Problem => new Problem(
                'missing-column',
                Severity::Warning,
                $table,
                $this->at + 1,
                $heading,
                "There is no column “{$heading}”; what it would say stays as it is.",
            ),
            $this->missing,
        );

        return $names === [] || in_array('day', $names, true)
            ? $missing
            : [
                ...$missing,
                new Problem(
                    'no-day',
                    Severity::Warning,
                    $table,
                    $this->at + 1,
                    null,
                    'No column says of which day the figures are, so they are left out. Export them by day.',
                ),
            ];
    }

    /** @param list<string|int|float|null> $row */
    public function isRepeatedIn(array $row): bool
    {
        $letter = ltrim((string) ($row[0] ?? ''))[0] ?? '';
        if ($letter < "\x80" && strtolower($letter) !== ($this->folded[0][0] ?? '')) {
            return false; // as nearly every row
        }

        return self::folded($row) === $this->folded;
    }

    /**
     * @param list<string|int|float|null> $row
     * @return list<string> without empty ones at the end
     */
    private static function folded(array $row): array
    {
        $folded = array_map(static fn (mixed $cell): string => Headings::folded((string) $cell), $row);
        while ($folded !== [] && $folded[count($folded) - 1] === '') {
            array_pop($folded);
        }

        return $folded;
    }
}
