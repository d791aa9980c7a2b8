<?php

namespace App\Connectors;

final readonly class RemoteUpdate
{
    /** @param string|null $value null clears */
    public function __construct(
        public string $node,
        public int $version,
        public string $kind,
        public string $name,
        public ?string $value,
    ) {}
}
