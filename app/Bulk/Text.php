<?php

namespace App\Bulk;

/** A text as it is and as an edit would leave it. */
final readonly class Text
{
    /** @param string $name of a custom parameter; else empty */
    public function __construct(
        public int $node,
        public string $kind,
        public string $name,
        public ?string $before,
        public ?string $after,
    ) {}
}
