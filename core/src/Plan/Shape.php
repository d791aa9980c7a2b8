<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

/** What is done to a field's value before it is sent. */
enum Shape: string
{
    case AsIs = 'as-is';
    case Slug = 'slug';

    public function of(string $value): string
    {
        return $this === self::AsIs ? $value : Slug::of($value);
    }
}
