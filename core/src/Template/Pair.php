<?php

declare(strict_types=1);

namespace Vestigon\Core\Template;

/** A piece of a query as it stands in a text. Offsets are bytes of the text. */
final readonly class Pair
{
    /**
     * @param string $mark what stands before it: `?`, `&`, `#`, or nothing at the start of the text
     * @param bool $keyFixed the key holds no token
     * @param string|null $value null: there is no `=`
     * @param bool $valueFixed the value holds no token
     */
    public function __construct(
        public string $mark,
        public int $at,
        public string $key,
        public bool $keyFixed,
        public ?string $value,
        public int $valueAt,
        public bool $valueFixed,
    ) {}
}
