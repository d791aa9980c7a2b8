<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Sheet;

use Vestigon\Core\Sheet\Certainty;
use Vestigon\Core\Sheet\DayOrder;
use Vestigon\Core\Sheet\HeadingRow;

/** Tells from the first rows of a sheet what its columns say of orders or page views. */
final readonly class EventSuggestion
{
    /**
     * @param int $headingRow its place, from 0
     * @param list<string> $headings
     * @param list<SuggestedEventColumn> $columns by their places
     */
    private function __construct(
        public int $headingRow,
        public array $headings,
        public array $columns,
        public string $decimal,
        public ?DayOrder $order,
    ) {}

    /**
     * @param list<list<string|int|float|null>> $rows its first ones
     * @param list<string> $clicks parameters that platforms hand their click IDs on in
     * @return self|null null: none of the first rows looks like headings
     */
    public static function of(array $rows, array $clicks): ?self
    {
        $at = self::mostKnown($rows, $clicks) ?? HeadingRow::at($rows, null);
        if ($at === null) {
            return null;
        }
        $headings = array_map(static fn (mixed $cell): string => trim((string) $cell), $rows[$at]);
        $behind = array_slice($rows, $at + 1);
        $looks = array_map(
            static fn (int $place): EventLooks => EventLooks::of(
                array_map(static fn (array $row): string|int|float|null => $row[$place] ?? null, $behind),
            ),
            array_keys($headings),
        );
        $columns = self::columns($headings, $looks, $clicks);
        $value = self::place($columns, EventColumn::Value);
        $time = self::place($columns, EventColumn::At);

        return new self(
            $at,
            $headings,
            $columns,
            $value === null ? '.' : $looks[$value]->decimal(),
            $time === null ? null : $looks[$time]->order(),
        );
    }

    public function map(): EventMap
    {
        return new EventMap(
            array_map(static fn (SuggestedEventColumn $c): ?EventColumn => $c->means, $this->columns),
            $this->decimal,
            $this->order,
        );
    }

    /**
     * The first of its rows with the most headings that are known, at least two.
     *
     * @param list<list<string|int|float|null>> $rows
     * @param list<string> $clicks
     */
    private static function mostKnown(array $rows, array $clicks): ?int
    {
        [$best, $most] = [null, 1];
        foreach (array_slice($rows, 0, HeadingRow::WITHIN) as $at => $row) {
            $known = array_filter(
                array_map(static fn ($cell): ?EventColumn => EventColumn::headed((string) $cell, $clicks), $row),
            );
            if (count($known) > $most) {
                [$best, $most] = [$at, count($known)];
            }
        }

        return $best;
    }

    /**
     * What a heading says goes before what cells look like; each is said of one column.
     *
     * @param list<string> $headings
     * @param list<EventLooks> $looks
     * @param list<string> $clicks
     * @return list<SuggestedEventColumn>
     */
    private static function columns(array $headings, array $looks, array $clicks): array
    {
        $columns = [];
        foreach ($headings as $place => $heading) {
            $columns[] = self::headed(EventColumn::headed($heading, $clicks), $looks[$place], $columns);
        }
        foreach ($looks as $place => $look) {
            // what has a word for its heading is not taken for something else
            $alone = $columns[$place]->why === '' ? $look->alone() : null;
            if ($alone !== null && self::place($columns, $alone) === null) {
                array_splice($columns, $place, 1, [
                    new SuggestedEventColumn($alone, Certainty::Likely, 'Its cells look like it.'),
                ]);
            }
        }

        return $columns;
    }

    /** @param list<SuggestedEventColumn> $before */
    private static function headed(?EventColumn $means, EventLooks $looks, array $before): SuggestedEventColumn
    {
        $fit = $means === null ? null : $looks->fit($means);

        return match (true) {
            $means === null => new SuggestedEventColumn(null, Certainty::Open, ''),
            self::place($before, $means) !== null => new SuggestedEventColumn(
                null,
                Certainty::Open,
                'Another column that is headed alike stands before it.',
            ),
            $fit === null => new SuggestedEventColumn($means, Certainty::Likely, 'Its heading says so.'),
            $fit === 1.0 => new SuggestedEventColumn($means, Certainty::Sure, 'Its heading and its cells say so.'),
            $fit >= 0.5 => new SuggestedEventColumn(
                $means,
                Certainty::Likely,
                'Its heading says so; some of its cells look otherwise.',
            ),
            default => new SuggestedEventColumn(
                null,
                Certainty::Open,
                "It is headed like the {$means->called()}, but most of its cells look otherwise.",
            ),
        };
    }

    /** @param list<SuggestedEventColumn> $columns */
    private static function place(array $columns, EventColumn $means): ?int
    {
        foreach ($columns as $place => $column) {
            if ($column->means === $means) {
                return $place;
            }
        }

        return null;
    }
}
