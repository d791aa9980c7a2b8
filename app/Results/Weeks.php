<?php

namespace App\Results;

use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;

/**
 * Results by week, added up out of those by day. A week is what its days say as long as none of them was added up anew
 * since: versions only grow, so their sum tells.
 */
final readonly class Weeks
{
    private const DIMENSIONS = 'd0, d1, d2, d3, currency';

    /** Weeks that are added up in one step. */
    private const AT_ONCE = 4;

    /**
     * @return list<string> the Mondays of the weeks that lie in a period as a whole
     */
    public static function in(string $from, string $to): array
    {
        $first = CarbonImmutable::parse($from);
        $mondays = [];
        $monday = $first->isMonday() ? $first : $first->next(CarbonImmutable::MONDAY);
        for (; $monday->addDays(6)->toDateString() <= $to; $monday = $monday->addWeek()) {
            $mondays[] = $monday->toDateString();
        }

        return $mondays;
    }

    /**
     * @return list<string> the Mondays of weeks in a period that are as their days are
     */
    public static function fresh(int $set, string $from, string $to): array
    {
        $mondays = self::in($from, $to);
        $versions = self::versions($set, $mondays);
        $rolled = DB::table('rolled_weeks')->where('set_id', $set)->whereIn('day', $mondays)->pluck('version', 'day');

        return array_values(
            array_filter(
                $mondays,
                static fn (string $m): bool => isset($versions[$m]) && $versions[$m] === (int) ($rolled[$m] ?? 0),
            ),
        );
    }

    /** Adds up the weeks of a period that are not as their days are. */
    public static function refresh(int $set, string $from, string $to): void
    {
        $stale = array_diff(self::in($from, $to), self::fresh($set, $from, $to));
        foreach (array_chunk($stale, self::AT_ONCE) as $some) {
            DB::transaction(static function () use ($set, $some): void {
                DB::table('rollup_sets')->where('id', $set)->lockForUpdate()->value('id'); // no day changes meanwhile
                $versions = self::versions($set, $some);
                DB::table('rollup_weeks')->where('set_id', $set)->whereIn('day', $some)->delete();
                foreach (array_keys($versions) as $monday) {
                    self::add($set, $monday);
                }
                DB::table('rolled_weeks')->upsert(
                    array_map(
                        static fn (string $monday, int $version): array => [
                            'set_id' => $set,
                            'day' => $monday,
                            'version' => $version,
                        ],
                        array_keys($versions),
                        $versions,
                    ),
                    ['set_id', 'day'],
                );
            }, 3);
        }
    }

    private static function add(int $set, string $monday): void
    {
        $measures = implode(', ', array_keys(DayLines::MEASURES));
        $sums = implode(', ', array_map(static fn (string $m): string => "sum({$m})", array_keys(DayLines::MEASURES)));
        DB::insert(
            'insert into rollup_weeks (set_id, day, '.self::DIMENSIONS.", {$measures}) select ?, ?, "
                .self::DIMENSIONS.", {$sums} from rollups where set_id = ? and day between ? and ? group by "
                .self::DIMENSIONS,
            [$set, $monday, $set, $monday, CarbonImmutable::parse($monday)->addDays(6)->toDateString()],
        );
    }

    /**
     * @param list<string> $mondays
     * @return array<string, int> Monday → what the versions of its days come to; none of whose days has any is left out
     */
    private static function versions(int $set, array $mondays): array
    {
        if ($mondays === []) {
            return [];
        }
        $versions = DB::table('rollup_days')
            ->where('set_id', $set)
            ->whereBetween('day', [min($mondays), CarbonImmutable::parse(max($mondays))->addDays(6)->toDateString()])
            ->groupByRaw('1')
            ->selectRaw('day - interval weekday(day) day monday, sum(version) version')
            ->pluck('version', 'monday')
            ->map(static fn (mixed $sum): int => (int) $sum)
            ->all();

        return array_intersect_key($versions, array_flip($mondays));
    }
}
