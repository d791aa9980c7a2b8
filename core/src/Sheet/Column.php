<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** One column of a table: what its heading is, and what its cells mean. */
final readonly class Column
{
    /** Stands for every cell that is not listed. */
    public const ANY = '*';

    /** @param array<string, string>|null $values cell → what it says; null: what stands there */
    public function __construct(
        public string $heading,
        public Meaning $means,
        public ?array $values = null,
        public CustomForm $form = new CustomForm(),
    ) {}

    /** What a cell says; null: the map has no such word. */
    public function said(string $cell): ?string
    {
        return $this->values === null ? $cell : $this->values[$cell] ?? $this->values[self::ANY] ?? null;
    }

    /** The cell that says this: the first that is listed with it; null: there is none. */
    public function cell(string $said): ?string
    {
        if ($this->values === null) {
            return $said;
        }
        $cell = array_search($said, array_diff_key($this->values, [self::ANY => true]), true);

        return $cell === false ? null : (string) $cell;
    }
}
