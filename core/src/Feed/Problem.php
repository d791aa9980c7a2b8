<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

/** Something that is wrong with an item. */
final readonly class Problem
{
    /** @param string|null $column the link that it is about */
    public function __construct(public ProblemCode $code, public ?string $column = null) {}
}
