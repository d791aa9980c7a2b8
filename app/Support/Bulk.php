<?php

namespace App\Support;

use Illuminate\Support\Facades\DB;

/** Many rows of a table in one statement. */
final class Bulk
{
    private const ROWS = 2000;

    private const PUT = 500;

    /** From so many rows on, that are to have the same, they have a statement of their own. */
    private const ALIKE = 30;

    /**
     * Puts rows into a table.
     *
     * @param list<array<string, mixed>> $rows each with the same columns, in the same order
     * @param string|null $returning what is to be told of each row that was taken
     * @param string $how `ignore`: rows that are there already are passed over, and not told of
     * @return list<object>
     */
    public static function insert(string $table, array $rows, ?string $returning = null, string $how = ''): array
    {
        return self::put("insert {$how} into {$table}", $rows, '', $returning);
    }

    /**
     * Puts rows into a table; of those that are there already, some columns are written over.
     *
     * @param list<array<string, mixed>> $rows each with the same columns, in the same order
     * @param list<string> $columns
     * @return list<object> what is to be told of each row
     */
    public static function upsert(string $table, array $rows, array $columns, ?string $returning = null): array
    {
        $over = implode(', ', array_map(static fn (string $c): string => "{$c} = values({$c})", $columns));

        return self::put("insert into {$table}", $rows, "on duplicate key update {$over}", $returning);
    }

    /**
     * The values are put into the statement before it is sent: one with a mark for each takes the server twice as long.
     *
     * @return list<object> what it tells of its rows
     */
    public static function run(Statement $statement): array
    {
        $pdo = DB::getPdo();
        $pdo->setAttribute(\PDO::ATTR_EMULATE_PREPARES, true);
        try {
            if ($statement->tells) {
                return DB::select($statement->sql, $statement->values);
            }
            DB::insert($statement->sql, $statement->values);

            return [];
        } finally {
            $pdo->setAttribute(\PDO::ATTR_EMULATE_PREPARES, false);
        }
    }

    /**
     * @param list<array<string, mixed>> $rows
     * @return list<object>
     */
    private static function put(string $into, array $rows, string $then, ?string $returning): array
    {
        $told = [];
        foreach (array_chunk($rows, self::PUT) as $some) {
            array_push($told, ...self::run(Statement::put($into, $some, $then, $returning)));
        }

        return $told;
    }

    /**
     * What many rows are to have alike is told once.
     *
     * @param array<string, string> $columns what is set, with its type in SQL
     * @param list<array<string, mixed>> $rows each with its id and all of the columns
     */
    public static function updateAlike(string $table, array $columns, array $rows): void
    {
        $alike = [];
        foreach ($rows as $row) {
            $values = $row;
            unset($values['id']);
            $alike[json_encode($values, JSON_THROW_ON_ERROR)][] = $row;
        }
        $others = [];
        foreach ($alike as $some) {
            if (count($some) < self::ALIKE) {
                array_push($others, ...$some);

                continue;
            }
            $values = array_intersect_key($some[0], $columns);
            foreach (array_chunk(array_column($some, 'id'), self::ROWS) as $ids) {
                DB::table($table)->whereIntegerInRaw('id', $ids)->update($values);
            }
        }
        self::update($table, $columns, $others);
    }

    /**
     * @param array<string, string> $columns what is set, with its type in SQL
     * @param list<array<string, mixed>> $rows each with its id and all of the columns
     */
    public static function update(string $table, array $columns, array $rows): void
    {
        $set = implode(', ', array_map(static fn (string $c): string => "t.{$c} = v.{$c}", array_keys($columns)));
        $read = '';
        foreach (['id' => 'bigint unsigned', ...$columns] as $column => $type) {
            $read .= ($read === '' ? '' : ', ')."{$column} {$type} path '$.{$column}'";
        }
        foreach (array_chunk($rows, self::ROWS) as $some) {
            DB::update(
                "update {$table} t join json_table(?, '$[*]' columns ({$read})) v on v.id = t.id set {$set}",
                [json_encode($some, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES)],
            );
        }
    }
}
