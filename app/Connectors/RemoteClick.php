<?php

namespace App\Connectors;

/** A click that a platform made for us on a live ad. */
final readonly class RemoteClick
{
    /**
     * @param string $url what the browser is sent to
     * @param array<string, string> $context the click's neutral fields, as the platform had them
     */
    public function __construct(public string $id, public string $url, public array $context) {}
}
