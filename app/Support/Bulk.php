<?php

namespace App\Support;

use Illuminate\Support\Facades\DB;

/** Many rows of a table brought up to date in one statement. */
final class Bulk
{
    private const ROWS = 2000;

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
