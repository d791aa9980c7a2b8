<?php

namespace App\Connectors;

/** Finds the connector that speaks a platform's API. */
final class Connectors
{
    /** @var array<string, Connector> */
    private array $open = [];

    public function for(string $dialect): Connector
    {
        $platform = config("platforms.ads.{$dialect}");

        return $this->open[$dialect] ??= $platform === null ? throw PlatformTrouble::unknown($dialect) : new HttpConnector(new Line($platform['title'], $platform['address'], new Pace($dialect, $platform['per_second'])), $platform['batch']);
    }
}
