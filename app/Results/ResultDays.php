<?php

namespace App\Results;

use Illuminate\Support\Facades\DB;

/**
 * How often what results are made of has changed on each day of a client. Marked in the transaction that changes it, so
 * that nothing added up before is taken for what is there now.
 */
final class ResultDays
{
    /** @param iterable<string> $days in the client's time zone, as often as one likes */
    public static function changed(int $client, iterable $days): void
    {
        $unique = [];
        foreach ($days as $day) {
            $unique[$day] = ['client_id' => $client, 'day' => $day];
        }
        ksort($unique); // in one order, so that two never wait for each other
        foreach (array_chunk(array_values($unique), 1000) as $some) {
            DB::table('result_days')->upsert($some, ['client_id', 'day'], ['version' => DB::raw('version + 1')]);
        }
    }

    /** What all days are told by has changed. */
    public static function allChanged(int $client): void
    {
        DB::table('result_days')->where('client_id', $client)->increment('version');
    }
}
