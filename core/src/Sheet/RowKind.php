<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** A column that says which level a row is of. */
final readonly class RowKind
{
    /** @param array<string, string> $levels cell → level id */
    public function __construct(public string $heading, public array $levels) {}

    /** @return string|null null: the cell says none */
    public function level(string $cell): ?string
    {
        return $cell === '' ? null : $this->levels[$cell] ?? $this->levels[Column::ANY] ?? null;
    }
}
