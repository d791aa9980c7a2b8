<?php

namespace App\Connectors;

use App\Models\Connection;

/** A platform that can be read, and takes texts only in a sheet that a person brings there. */
final readonly class SheetConnector implements Connector
{
    public function __construct(private Connector $reads) {}

    public function writesNow(): bool
    {
        return false;
    }

    public function clicksNow(): bool
    {
        return $this->reads->clicksNow();
    }

    public function accounts(Connection $connection): array
    {
        return $this->reads->accounts($connection);
    }

    public function nodes(Connection $connection, string $account, string $level): iterable
    {
        return $this->reads->nodes($connection, $account, $level);
    }

    public function read(Connection $connection, string $account, array $ids): array
    {
        return $this->reads->read($connection, $account, $ids);
    }

    public function write(Connection $connection, string $account, string $key, array $updates): array
    {
        throw new \LogicException('what goes out in a sheet is not sent');
    }

    public function batchSize(): int
    {
        return $this->reads->batchSize();
    }

    public function click(Connection $connection, string $account, string $ad, array $context): RemoteClick
    {
        return $this->reads->click($connection, $account, $ad, $context);
    }

    public function clicks(Connection $connection, string $account, array $clickIds): array
    {
        return $this->reads->clicks($connection, $account, $clickIds);
    }

    public function figures(Connection $connection, string $account, string $from, string $to): iterable
    {
        return $this->reads->figures($connection, $account, $from, $to);
    }
}
