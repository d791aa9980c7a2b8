<?php

namespace App\Connectors;

final readonly class RemoteAnswer
{
    /** @param string $state done, stale, refused or unknown */
    public function __construct(public string $state, public string $message, public ?int $version) {}
}
