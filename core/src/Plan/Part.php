<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

/** A part of a parameter's value: fixed text, or a field. */
final readonly class Part
{
    private function __construct(public ?string $text, public ?string $field) {}

    public static function text(string $text): self
    {
        return new self($text, null);
    }

    public static function field(string $field): self
    {
        return new self(null, $field);
    }
}
