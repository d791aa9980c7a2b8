<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

/** A parameter that the platform adds by itself: fixed text, or a field's value. */
final readonly class AutoTag
{
    public function __construct(public string $key, public ?string $text, public ?string $field) {}
}
