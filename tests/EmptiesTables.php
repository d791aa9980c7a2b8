<?php

namespace Tests;

use Illuminate\Database\ConnectionInterface;
use Illuminate\Foundation\Testing\DatabaseTruncation;

/**
 * Empties tables before each test, as their owner: the application itself may not. Which hold anything is one question;
 * a test leaves few rows, and deleting them takes the server less than making their tables anew, which is left for
 * those that nothing may be deleted from.
 */
trait EmptiesTables
{
    use DatabaseTruncation;

    /** @var list<string> */
    protected array $connectionsToTruncate = ['owner'];

    /** @var list<string>|null */
    private static ?array $tables = null;

    /** @var list<string>|null */
    private static ?array $appendOnly = null;

    protected function truncateTablesForConnection(ConnectionInterface $connection, ?string $name): void
    {
        $schema = $connection->getSchemaBuilder();
        self::$tables ??= array_values(
            array_diff(array_column($schema->getTables($connection->getDatabaseName()), 'name'), ['migrations']),
        );
        $some = implode(
            ' union all ',
            array_map(static fn (string $t): string => "(select '{$t}' t from `{$t}` limit 1)", self::$tables),
        );
        self::$appendOnly ??= array_column(
            $connection->select(
                'select distinct event_object_table t from information_schema.triggers '
                    ."where trigger_schema = database() and event_manipulation = 'DELETE'",
            ),
            't',
        );
        $kept = array_flip(self::$appendOnly);
        foreach ($connection->select($some) as $row) {
            $connection->statement((isset($kept[$row->t]) ? 'truncate' : 'delete from')." `{$row->t}`");
        }
    }
}
