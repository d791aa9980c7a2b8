<?php

namespace App\Watching;

use App\Models\Collector;
use Carbon\CarbonImmutable;
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
        self::where('client_id = ? and at >= ?', [$client, $since]);
    }

    /**
     * All of a client whose URLs have one of these keys; day by day, so that nothing that arrives has to wait long.
     *
     * @param list<string> $keys
     */
    public static function byKeys(int $client, array $keys): void
    {
        $written = array_unique([...$keys, ...array_map(rawurlencode(...), $keys)]);
        $has = implode(' or ', array_fill(0, count($written), 'instr(url, ?) > 0'));
        $first = DB::table('arrivals')->where('client_id', $client)->min('at');
        $day = CarbonImmutable::parse($first ?? 'tomorrow', 'UTC')->startOfDay();
        for (; $day->isPast(); $day = $day->addDay()) {
            self::where(
                "client_id = ? and at >= ? and at < ? and ({$has})",
                [
                    $client,
                    $day->toDateTimeString(),
                    $day->addDay()->toDateTimeString(),
                    ...array_map(static fn (string $key): string => "{$key}=", $written),
                ],
            );
        }
    }

    /** @param list<mixed> $values */
    private static function where(string $which, array $values): void
    {
        DB::insert(
            "insert into touched
            select collector_id, coalesce(concat('v', visitor), concat('a', id)), min(at) from arrivals
            where {$which} group by 1, 2
            on duplicate key update since = least(touched.since, values(since))",
            $values,
        );
    }
}
