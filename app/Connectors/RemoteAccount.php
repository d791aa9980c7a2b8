<?php

namespace App\Connectors;

final readonly class RemoteAccount
{
    /** @param array<string, mixed> $settings */
    public function __construct(public string $id, public string $name, public array $settings, public int $nodes) {}
}
