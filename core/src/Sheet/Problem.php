<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Findings\Severity;

/** Something in a table that is not as it should be. */
final readonly class Problem
{
    /**
     * @param int $table which of the import's tables, from 0
     * @param int $row as a spreadsheet counts it, from 1
     * @param string|null $column its heading; null: of the whole row
     */
    public function __construct(
        public string $code,
        public Severity $severity,
        public int $table,
        public int $row,
        public ?string $column,
        public string $says,
    ) {}

    /** Nothing in the table's first rows is a heading that a map knows. */
    public static function noHeadings(int $table): self
    {
        return new self(
            'no-headings',
            Severity::Error,
            $table,
            1,
            null,
            'None of the first '.HeadingRow::WITHIN.' rows has headings that the map knows.',
        );
    }

    /** Different things have one name. */
    public static function namedAlike(int $table, int $row, Step $step): self
    {
        return new self(
            'named-alike',
            Severity::Error,
            $table,
            $row,
            null,
            "Several that differ are called “{$step->name}” here; without numbers they can't be told apart.",
        );
    }

    /** Two rows of one element differ. */
    public static function saidTwice(int $table, int $row, Step $step): self
    {
        return new self(
            'said-twice',
            Severity::Warning,
            $table,
            $row,
            null,
            "An earlier row says something else of {$step->id}; this one counts.",
        );
    }

    /** An element stands under another one than was said, or known, before. */
    public static function moved(int $table, int $row, Step $step, Step $under): self
    {
        return new self(
            'moved',
            Severity::Warning,
            $table,
            $row,
            null,
            "{$step->id} stands under another {$under->level} than before; this row counts.",
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'code' => $this->code,
            'severity' => $this->severity->value,
            'table' => $this->table,
            'row' => $this->row,
            ...($this->column === null ? [] : ['column' => $this->column]),
            'says' => $this->says,
        ];
    }
}
