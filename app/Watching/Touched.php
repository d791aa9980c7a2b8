<?php

namespace App\Watching;

use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;

/**
 * Of whom something is known anew, besides what has just arrived (Collecting\Arrived marks that).
 */
final class Touched
{
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
