<?php

namespace App\Results;

use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;

/**
 * Results of several weeks, added up out of those by day. A span is what its days say as long as none of them was added
 * up anew since: versions only grow, so their sum tells.
 */
final readonly class Spans
{
    /** So many weeks has a span, the longest first. */
    private const WEEKS = [4, 1];

    /** Spans are counted from this Monday on. */
    private const FIRST = '1970-01-05';

    private const DIMENSIONS = 'd0, d1, d2, d3, currency';

    /** Spans that are added up in one step. */
    private const AT_ONCE = 4;

    /**
     * What a question reads: the longest spans that are as their days are, and the days that are in none of them.
     *
     * @return array<int, non-empty-list<string>> weeks (0: days) → first days
     */
    public static function of(int $set, Question $question): array
    {
        $left = [];
        $to = CarbonImmutable::parse($question->to);
        for ($day = CarbonImmutable::parse($question->from); $day <= $to; $day = $day->addDay()) {
            $left[$day->toDateString()] = true;
        }
        $read = [];
        foreach (self::WEEKS as $weeks) {
            if ($weeks > $question->mostWeeks()) {
                continue;
            }
            foreach (self::fresh($set, $weeks, $question->from, $question->to) as $first) {
                if (isset($left[$first])) {
                    $read[$weeks][] = $first;
                    $left = array_diff_key($left, array_flip(self::days($first, $weeks)));
                }
            }
        }

        return $read + ($left === [] ? [] : [0 => array_keys($left)]);
    }

    /** Adds up the spans of a period that are not as their days are. */
    public static function refresh(int $set, string $from, string $to): void
    {
        foreach (self::WEEKS as $weeks) {
            $stale = array_diff(self::in($weeks, $from, $to), self::fresh($set, $weeks, $from, $to));
            foreach (array_chunk($stale, self::AT_ONCE) as $some) {
                DB::transaction(static fn () => self::add($set, $weeks, $some), 3);
            }
        }
    }

    /** @param non-empty-list<string> $spans */
    private static function add(int $set, int $weeks, array $spans): void
    {
        DB::table('rollup_sets')->where('id', $set)->lockForUpdate()->value('id'); // no day changes meanwhile
        $versions = self::versions($set, $weeks, $spans);
        $of = ['set_id' => $set, 'weeks' => $weeks];
        DB::table('rollups')->where($of)->whereIn('day', $spans)->delete();
        $measures = implode(', ', array_keys(DayLines::MEASURES));
        $sums = implode(', ', array_map(static fn (string $m): string => "sum({$m})", array_keys(DayLines::MEASURES)));
        $rolled = [];
        foreach ($versions as $first => $version) {
            $days = self::days($first, $weeks);
            DB::insert(
                'insert into rollups (set_id, weeks, day, '.self::DIMENSIONS.", {$measures}) select ?, ?, ?, "
                    .self::DIMENSIONS.", {$sums} from rollups where set_id = ? and weeks = 0 and day between ? and ?
                    group by ".self::DIMENSIONS,
                [$set, $weeks, $first, $set, $first, end($days)],
            );
            $rolled[] = $of + ['day' => $first, 'version' => $version];
        }
        DB::table('rolled_weeks')->upsert($rolled, ['set_id', 'weeks', 'day']);
    }

    /** @return list<string> the first days of spans that lie in a period as a whole */
    private static function in(int $weeks, string $from, string $to): array
    {
        $first = CarbonImmutable::parse($from);
        $into = (int) CarbonImmutable::parse(self::FIRST)->diffInDays($first) % (7 * $weeks);
        $spans = [];
        $day = $into === 0 ? $first : $first->addDays(7 * $weeks - $into);
        for (; $day->addDays(7 * $weeks - 1)->toDateString() <= $to; $day = $day->addWeeks($weeks)) {
            $spans[] = $day->toDateString();
        }

        return $spans;
    }

    /** @return list<string> */
    private static function days(string $first, int $weeks): array
    {
        $day = CarbonImmutable::parse($first);

        return array_map(
            static fn (int $n): string => $day->addDays($n)->toDateString(),
            range(0, 7 * $weeks - 1),
        );
    }

    /** @return list<string> the first days of spans in a period that are as their days are */
    private static function fresh(int $set, int $weeks, string $from, string $to): array
    {
        $spans = self::in($weeks, $from, $to);
        $versions = self::versions($set, $weeks, $spans);
        $rolled = DB::table('rolled_weeks')
            ->where(['set_id' => $set, 'weeks' => $weeks])
            ->whereIn('day', $spans)
            ->pluck('version', 'day');

        return array_values(
            array_filter(
                $spans,
                static fn (string $s): bool => isset($versions[$s]) && $versions[$s] === (int) ($rolled[$s] ?? 0),
            ),
        );
    }

    /**
     * @param list<string> $spans
     * @return array<string, int> first day → what the versions of its days come to; none of whose days has any is left
     *     out
     */
    private static function versions(int $set, int $weeks, array $spans): array
    {
        if ($spans === []) {
            return [];
        }
        $last = self::days(max($spans), $weeks);
        $versions = DB::table('rollup_days')
            ->where('set_id', $set)
            ->whereBetween('day', [min($spans), end($last)])
            ->groupByRaw('1')
            ->selectRaw(
                'day - interval datediff(day, ?) % ? day first, sum(version) version',
                [self::FIRST, 7 * $weeks],
            )
            ->pluck('version', 'first')
            ->map(static fn (mixed $sum): int => (int) $sum)
            ->all();

        return array_intersect_key($versions, array_flip($spans));
    }
}
