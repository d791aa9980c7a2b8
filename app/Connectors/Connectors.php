<?php

namespace App\Connectors;

/** Finds the connector that speaks a platform's API. */
final class Connectors
{
    /** @var array<string, Connector> */
    private array $open = [];

    public function for(string $dialect): Connector
    {
        return $this->open[$dialect] ??= match ($dialect) {
            'northquay-search' => new NorthquayConnector(new Line('Northquay Search', config('platforms.northquay-search.address'))),
            default => throw PlatformTrouble::unknown($dialect),
        };
    }
}
