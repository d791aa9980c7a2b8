<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

use Vestigon\Core\Plan\Shape;

/** A part of a value: text as it stands, or what a column of the item has. */
final readonly class Part
{
    private function __construct(public ?string $text, public string $column, public Shape $shape) {}

    public static function text(string $text): self
    {
        return new self($text, '', Shape::AsIs);
    }

    public static function column(string $column, Shape $shape = Shape::AsIs): self
    {
        return new self(null, $column, $shape);
    }
}
