<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

/** The marks of a platform's tokens. */
final readonly class Syntax
{
    /** @param bool $keepsUnknown unknown tokens stay as typed; else they vanish */
    public function __construct(
        public string $open,
        public string $close,
        public bool $caseSensitive,
        public bool $keepsUnknown,
    ) {}

    /** Names are compared in this form. */
    public function folded(string $name): string
    {
        return $this->caseSensitive ? $name : strtolower($name);
    }
}
