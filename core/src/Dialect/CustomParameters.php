<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

/** Names and values that people set on nodes and use in text like a token. */
final readonly class CustomParameters
{
    /**
     * @param list<string> $levels level ids where they may be set
     * @param int $max how many a node may have
     * @param int $nameLength longest name, in characters
     * @param int $valueLength longest value, in characters
     */
    public function __construct(
        public string $prefix,
        public array $levels,
        public int $max,
        public int $nameLength,
        public int $valueLength,
    ) {}
}
