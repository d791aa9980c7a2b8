<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** What the columns of one table mean. */
final readonly class TableMap
{
    /** @var array<string, true> by heading as it is compared */
    public array $headings;

    /**
     * @param string|null $level the level that its rows are of; null: the narrowest that a row identifies
     * @param RowKind|null $rowKind a column that says so for each row
     * @param list<Column> $columns
     */
    public function __construct(
        public string $title,
        public ?string $level,
        public ?RowKind $rowKind,
        public array $columns,
    ) {
        $headings = $rowKind === null ? [] : [Headings::folded($rowKind->heading) => true];
        foreach ($columns as $column) {
            $headings[Headings::folded($column->heading)] = true;
        }
        $this->headings = $headings;
    }

    /** Is an element of this level told by its number alone? */
    public function hasIdOf(string $level): bool
    {
        $hasOwn =
            $this->rowKind === null
                ? $this->level === $level
                : in_array($level, $this->rowKind->levels, true);
        foreach ($this->columns as $column) {
            if (
                $column->means->says === Says::Id
                && ($column->means->level === $level || ($column->means->level === null && $hasOwn))
            ) {
                return true;
            }
        }

        return false;
    }
}
