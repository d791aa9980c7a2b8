<?php

namespace App\Connectors;

use App\Clicks\Gate;
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
        $api = $this->api($connection);

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
            : $this->api($import->link);
    }

    /** A program of one's own that speaks for a platform, where the installation's owner lets it. */
    public function adapter(Connection $connection): HttpConnector
    {
        $limits = config('platforms.adapters');
        $line = new Line(
            $connection->title,
            (string) $connection->address,
            new Pace("reads of connection {$connection->id}", $limits['reads']),
            new Pace("writes to connection {$connection->id}", $limits['writes']),
            new Gate($limits['hosts'], 'which whoever runs this installation has not allowed (ADAPTER_HOSTS)'),
        );

        return new HttpConnector($line, $limits['batch'], $connection->clicks ?? true);
    }

    private function api(Connection $connection): Connector
    {
        return $connection->address === null ? $this->for($connection->dialect) : $this->adapter($connection);
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
