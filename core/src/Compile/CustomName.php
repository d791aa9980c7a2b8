<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Plan\Shape;

/** A custom parameter that is to carry a field in a shape. */
final readonly class CustomName
{
    public function __construct(public string $name, public string $field, public Shape $shape) {}
}
