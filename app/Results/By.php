<?php

namespace App\Results;

/** One thing that results are told by: a dimension, and of some which one. */
final readonly class By
{
    /**
     * @param string $asked as people ask for it; of a part of a name, its field
     * @param int|null $key a plan key's number
     */
    private function __construct(
        public Dimension $dimension,
        public string $asked,
        public bool $isPart = false,
        public ?int $key = null,
    ) {}

    public static function of(Dimension $dimension): self
    {
        return new self($dimension, $dimension->value);
    }

    /** A part of the names of a kind of elements, as they are called today. */
    public static function part(Dimension $of, string $field): self
    {
        return new self($of, $field, isPart: true);
    }

    public static function key(int $number, string $asked = ''): self
    {
        return new self(Dimension::Key, $asked, key: $number);
    }

    /** What records have it by: two that are told by the same have one. */
    public function column(): string
    {
        return $this->key === null ? $this->dimension->value : "{$this->dimension->value}.{$this->key}";
    }

    /** By its column. */
    public static function ofColumn(string $column): self
    {
        [$dimension, $key] = explode('.', $column, 2) + [1 => null];

        return $key === null ? self::of(Dimension::from($dimension)) : self::key((int) $key);
    }

    public function isTime(): bool
    {
        return $this->dimension->isTime();
    }
}
