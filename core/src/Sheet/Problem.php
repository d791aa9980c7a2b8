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
