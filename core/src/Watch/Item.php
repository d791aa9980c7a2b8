<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** Something bought. */
final readonly class Item
{
    /** @param int $value of all of them, in minor units */
    public function __construct(public string $id, public ?string $name, public int $quantity, public int $value) {}
}
