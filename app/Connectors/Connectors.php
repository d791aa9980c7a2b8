<?php

namespace App\Connectors;

use App\Models\Connection;

/** Finds the connector that speaks a platform's API. */
final class Connectors
{
    /** @var array<string, Connector> */
    private array $open = [];

    public function to(Connection $connection): Connector
    {
        $api = $this->for($connection->dialect);

        return $connection->writes_by === 'sheet' ? new SheetConnector($api) : $api;
    }

    public function for(string $dialect): Connector
    {
        $platform = config("platforms.ads.{$dialect}");

        return $this->open[$dialect] ??=
            $platform === null
                ? throw PlatformTrouble::unknown($dialect)
                : new HttpConnector(
                    new Line(
                        $platform['title'],
                        $platform['address'],
                        new Pace("reads of {$dialect}", $platform['reads']),
                        new Pace("writes to {$dialect}", $platform['writes']),
                    ),
                    $platform['batch'],
                );
    }
}
