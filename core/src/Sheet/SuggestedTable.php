<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** What a table might mean. */
final readonly class SuggestedTable
{
    /**
     * @param int $at the place of its heading row, from 0
     * @param string|null $level of its rows; null: the row says so, or nothing does
     * @param list<SuggestedColumn> $columns
     */
    public function __construct(
        public string $title,
        public int $at,
        public ?string $level,
        public ?RowKind $rowKind,
        public array $columns,
    ) {}

    public function map(): TableMap
    {
        return new TableMap(
            $this->title,
            $this->level,
            $this->rowKind,
            array_map(static fn (SuggestedColumn $c): Column => $c->column(), $this->columns),
        );
    }
}
