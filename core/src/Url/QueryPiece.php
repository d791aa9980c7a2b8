<?php

declare(strict_types=1);

namespace Vestigon\Core\Url;

/** A piece of a query as it stands in a text. Offsets are bytes of the text. */
final readonly class QueryPiece
{
    /**
     * @param string $mark what stands before it: `?`, `&`, `#`, or nothing at the start of the text
     * @param int $at where it begins, behind its mark
     * @param string $text all of it
     * @param bool $isParameter it is read as one: not the address, and not behind `#`
     * @param string $key what stands before the `=`, all if there is none
     * @param bool $keyFixed nothing in the key is filled in at the click
     * @param string|null $value null: there is no `=`
     */
    public function __construct(
        public string $mark,
        public int $at,
        public string $text,
        public bool $isParameter,
        public string $key,
        public bool $keyFixed,
        public ?string $value,
        public int $valueAt,
        public bool $valueFixed,
    ) {}

    /** The key as the urlencoded parser reads it; a piece without `=` is a key too, with nothing in it. */
    public function name(): string
    {
        return Query::decoded($this->key);
    }

    /** Is it a parameter with one of these keys? */
    public function hasKey(string ...$keys): bool
    {
        return $this->isParameter && $this->text !== '' && in_array($this->name(), $keys, true);
    }

    /** The same behind another mark. */
    public function behind(string $mark): string
    {
        return $mark.$this->text;
    }
}
