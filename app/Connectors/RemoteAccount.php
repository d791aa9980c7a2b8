<?php

namespace App\Connectors;

/** An account as its platform announces it. */
final readonly class RemoteAccount
{
    /**
     * @param int $nodes how many elements it has
     * @param list<string>|null $whole levels of which all elements are delivered; null: all levels
     */
    public function __construct(
        public string $id,
        public string $name,
        public int $nodes,
        public ?array $whole = null,
    ) {}
}
