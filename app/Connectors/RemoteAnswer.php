<?php

namespace App\Connectors;

final readonly class RemoteAnswer
{
    /** @param string $state done, stale, refused, unknown; or missing: the platform did not say */
    public function __construct(public string $state, public string $message, public ?int $version) {}

    public static function missing(): self
    {
        return new self('missing', '', null);
    }
}
