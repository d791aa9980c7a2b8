<?php

namespace App\Connectors;

use App\Dialects\Dialects;
use App\Models\Connection;
use App\Models\Import;
use App\Models\Intake;

/** Finds the connector that speaks a platform's API. */
final class Connectors
{
    /** @var array<string, Connector> */
    private array $open = [];

    public function to(Connection $connection): Connector
    {
        if ($connection->reads_by === 'sheet') {
            return new StagedConnector(null);
        }
        $api = $this->for($connection->dialect);

        return $connection->writes_by === 'sheet' ? new SheetConnector($api) : $api;
    }

    /** The one that an import takes its elements from. */
    public function from(Import $import): Connector
    {
        return $import->link->reads_by === 'sheet'
            ? new StagedConnector(
                Intake::query()->where('import_id', $import->id)->first(),
                app(Dialects::class)->of($import->client_id, $import->link->dialect),
            )
            : $this->for($import->link->dialect);
    }

    private function for(string $dialect): Connector
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
