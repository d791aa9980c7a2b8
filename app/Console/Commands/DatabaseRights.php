<?php

namespace App\Console\Commands;

use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * Says what the application's own user of the database may do with each table. Run as the tables' owner, after
 * migrating.
 */
final class DatabaseRights extends Command
{
    protected $signature = 'database:rights';

    protected $description = 'Gives the application\'s user its rights, table by table';

    /** Written once, for good. */
    private const ONLY_ADDED_TO = ['ledger', 'audit'];

    /** Nothing is ever deleted here: what is no longer there is kept as gone. */
    private const KEPT = [
        'accounts',
        'arrivals',
        'change_looks',
        'changes',
        'clients',
        'marks',
        'nodes',
        'plans',
        'set_apart',
        'texts',
    ];

    private const READ = ['migrations'];

    public function handle(): void
    {
        $owner = DB::connection('owner');
        $user = self::quoted((string) config('database.connections.mariadb.username'));
        $host = self::quoted((string) config('database.connections.mariadb.host_of_user'));
        $database = $owner->getDatabaseName();
        foreach (Schema::connection('owner')->getTableListing($database, schemaQualified: false) as $table) {
            $rights = match (true) {
                in_array($table, self::READ, true) => 'select',
                in_array($table, self::ONLY_ADDED_TO, true) => 'select, insert',
                in_array($table, self::KEPT, true) => 'select, insert, update',
                default => 'select, insert, update, delete',
            };
            $owner->unprepared("grant {$rights} on `{$database}`.`{$table}` to {$user}@{$host}");
        }
        foreach (['arrival_days', 'forget_visitor', 'let_arrivals_go'] as $procedure) {
            $owner->unprepared("grant execute on procedure `{$database}`.`{$procedure}` to {$user}@{$host}");
        }
    }

    private static function quoted(string $name): string
    {
        return "'".str_replace(['\\', "'"], ['\\\\', "''"], $name)."'";
    }
}
