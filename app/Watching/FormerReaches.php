<?php

namespace App\Watching;

use App\Support\Bulk;
use Illuminate\Support\Facades\DB;

/**
 * What could be told of ads' clicks before they said what they say today: a click of a day is told by what its ad said
 * on that day. The day of a change is told by what was said after it.
 */
final class FormerReaches
{
    private const EVER = '1000-01-01';

    /**
     * @param list<int> $ads
     * @return array<int, string> reach by ad, as it is
     */
    public static function now(array $ads): array
    {
        return DB::table('wanted_lines')->whereIntegerInRaw('node_id', $ads)->pluck('reach', 'node_id')->all();
    }

    /**
     * @param array<int, string> $were reach by ad, as it was
     * @param string $today the client's day
     */
    public static function keep(array $were, string $today): void
    {
        $changed = array_diff_assoc($were, self::now(array_keys($were)));
        $since = DB::table('former_reaches')
            ->whereIntegerInRaw('node_id', array_keys($changed))
            ->groupBy('node_id')
            ->selectRaw('node_id, max(until) + interval 1 day since')
            ->pluck('since', 'node_id');
        $yesterday = (new \DateTimeImmutable($today))->modify('-1 day')->format('Y-m-d');
        $rows = [];
        foreach ($changed as $ad => $reach) {
            $from = (string) ($since[$ad] ?? self::EVER);
            // what lasted for less than a day was no day's
            if ($from <= $yesterday) {
                $rows[] = ['node_id' => $ad, 'since' => $from, 'until' => $yesterday, 'reach' => $reach];
            }
        }
        Bulk::insert('former_reaches', $rows);
    }
}
