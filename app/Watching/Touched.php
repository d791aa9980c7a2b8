<?php

namespace App\Watching;

use App\Models\Collector;
use Illuminate\Support\Facades\DB;

/**
 * Of whom something new is known: sessions and what conversions count for are worked out anew for these alone.
 *
 * Who: `v` and a visitor's word, or `a` and the number of an arrival of nobody who is known again.
 */
final class Touched
{
    private const AT_ONCE = 2000;

    /** @param list<array<string, mixed>> $arrivals rows that were kept */
    public static function mark(Collector $collector, array $arrivals): void
    {
        $since = [];
        foreach ($arrivals as $a) {
            $who = $a['visitor'] === null ? "a{$a['id']}" : "v{$a['visitor']}";
            $since[$who] = min($since[$who] ?? $a['at'], $a['at']);
        }
        $rows = [];
        foreach ($since as $who => $at) {
            $rows[] = ['collector_id' => $collector->id, 'who' => (string) $who, 'since' => $at];
        }
        foreach (array_chunk($rows, self::AT_ONCE) as $some) {
            DB::table('touched')->upsert(
                $some,
                ['collector_id', 'who'],
                ['since' => DB::raw('least(since, values(since))')],
            );
        }
    }

    /** All of a client, from an instant on: what they are counted by has changed. */
    public static function all(int $client, string $since): void
    {
        DB::insert(
            "insert into touched
            select collector_id, coalesce(concat('v', visitor), concat('a', id)), min(at) from arrivals
            where client_id = ? and at >= ? group by 1, 2
            on duplicate key update since = least(touched.since, values(since))",
            [$client, $since],
        );
    }
}
