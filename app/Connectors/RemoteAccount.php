<?php

namespace App\Connectors;

final readonly class RemoteAccount
{
    public function __construct(public string $id, public string $name, public int $nodes) {}
}
