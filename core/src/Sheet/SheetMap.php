<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** Says once what the columns of a platform's export mean (`vestigon.sheet-map/1`). */
final readonly class SheetMap
{
    public const FORMAT = 'vestigon.sheet-map/1';

    /** What a document has. */
    public const KEYS = ['format', 'dialect', 'title', 'decimal', 'blank', 'totals', 'tables'];

    /**
     * @param list<TableMap> $tables
     * @param string $decimal the mark between a figure's whole and its parts
     * @param list<string> $blank words that stand for nothing
     * @param list<string> $totals words that a row of totals begins with
     */
    public function __construct(
        public string $dialect,
        public string $title,
        public array $tables,
        public string $decimal = '.',
        public array $blank = [],
        public array $totals = [],
    ) {}

    /**
     * The map of a table: the one of its title, else the one that knows the most of its headings.
     *
     * @param list<list<string|int|float|null>> $rows its first rows
     * @return TableMap|null null: none knows any
     */
    public function tableFor(string $title, array $rows): ?TableMap
    {
        $best = null;
        $most = 0;
        foreach ($this->tables as $table) {
            if (Headings::folded($table->title) === Headings::folded($title)) {
                return $table;
            }
            $known = HeadingRow::mostKnown($rows, $table);
            if ($known > $most) {
                [$best, $most] = [$table, $known];
            }
        }

        return $best;
    }
}
