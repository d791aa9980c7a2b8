<?php

namespace App\Connectors;

use App\Models\Connection;

/** What Vestigon asks of an ad platform. Every call may throw PlatformTrouble. */
interface Connector
{
    /** @return list<RemoteAccount> */
    public function accounts(Connection $connection): array;

    /** @return iterable<RemoteNode> all nodes of a level, in the platform's order, page by page */
    public function nodes(Connection $connection, string $account, string $level): iterable;

    /**
     * @param list<string> $ids
     * @return list<RemoteNode> as they are now
     */
    public function read(Connection $connection, string $account, array $ids): array;

    /**
     * Sends one batch, at most batchSize() updates. The same key is carried out once, however often it is sent.
     *
     * @param list<RemoteUpdate> $updates each node at most once
     * @return list<RemoteAnswer> in the order of the updates
     */
    public function write(Connection $connection, string $account, string $key, array $updates): array;

    public function batchSize(): int;

    /** Are texts written at once? Else they go out in a sheet, and a person brings the result back. */
    public function writesNow(): bool;

    /** Can it be asked for clicks? Else what it holds is known only from what people bring. */
    public function clicksNow(): bool;

    /**
     * A real click on a live ad, made for a test: the platform puts the URL together as it would for a visitor.
     *
     * @param array<string, string> $context wanted field values
     */
    public function click(Connection $connection, string $account, string $ad, array $context): RemoteClick;

    /**
     * @param list<string> $clickIds
     * @return array<string, KnownClick> by click ID; what the platform does not know is left out
     */
    public function clicks(Connection $connection, string $account, array $clickIds): array;

    /**
     * What the platform says of each ad and day, in the account's days; both ends are meant.
     *
     * @return iterable<Figures>
     */
    public function figures(Connection $connection, string $account, string $from, string $to): iterable;
}
