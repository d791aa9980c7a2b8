<?php

namespace App\Results;

use App\Models\Client;
use App\Support\Bulk;
use Illuminate\Support\Facades\DB;

/** Reads a few days' records once, and adds them up by several sets of dimensions. */
final readonly class AddingUp
{
    /** Sessions that are read in one step. */
    private const SESSIONS = 50_000;

    public function __construct(private RollupValues $values, private AdValues $adValues) {}

    /**
     * @param array<int, RollupSet> $sets by their numbers
     */
    public function of(Client $client, array $sets, string $from, string $to): void
    {
        $stale = self::stale($client, array_keys($sets), $from, $to);
        $some = [];
        $read = 0;
        foreach (self::sessionsOf($client, array_keys($stale)) as $day => $sessions) {
            if ($some !== [] && $read + $sessions > self::SESSIONS) {
                $this->step($client, $sets, $some);
                [$some, $read] = [[], 0];
            }
            $some[] = $day;
            $read += $sessions;
        }
        if ($some !== []) {
            $this->step($client, $sets, $some);
        }
    }

    /**
     * @param list<int> $sets
     * @return array<string, array<int, int>> day → set → the version that is to be had
     */
    private static function stale(Client $client, array $sets, string $from, string $to): array
    {
        $stale = [];
        $rows = DB::table('result_days as d')
            ->join('rollup_sets as s', 's.client_id', 'd.client_id')
            ->leftJoin(
                'rollup_days as r',
                static fn ($join) => $join->on('r.day', 'd.day')->on('r.set_id', 's.id'),
            )
            ->where('d.client_id', $client->id)
            ->whereBetween('d.day', [$from, $to])
            ->whereIntegerInRaw('s.id', $sets)
            ->whereRaw('coalesce(r.version, 0) <> d.version')
            ->orderBy('d.day')
            ->get(['d.day', 's.id', 'd.version']);
        foreach ($rows as $row) {
            $stale[$row->day][(int) $row->id] = (int) $row->version;
        }

        return $stale;
    }

    /**
     * @param list<string> $days
     * @return array<string, int> each of them, with how much there is to be read
     */
    private static function sessionsOf(Client $client, array $days): array
    {
        $known = DB::table('site_sessions')
            ->where('client_id', $client->id)
            ->whereIn('day', $days)
            ->groupBy('day')
            ->selectRaw('day, count(*) n')
            ->pluck('n', 'day')
            ->all();

        return array_map(intval(...), $known + array_fill_keys($days, 0));
    }

    /**
     * The version of a day is read before what it adds up: if more comes between, the day is stale once more.
     *
     * @param array<int, RollupSet> $sets
     * @param non-empty-list<string> $days
     */
    private function step(Client $client, array $sets, array $days): void
    {
        DB::transaction(function () use ($client, $sets, $days): void {
            $ids = array_keys($sets);
            sort($ids);
            foreach ($ids as $set) {
                DB::table('rollup_sets')->where('id', $set)->lockForUpdate()->value('id'); // one at a time
            }
            $stale = array_intersect_key(self::stale($client, $ids, min($days), max($days)), array_flip($days));
            if ($stale === []) {
                return;
            }
            $lines = new DayLines($client, $sets, $stale);
            $versions = [];
            foreach ($stale as $day => $some) {
                DB::table('rollups')
                    ->whereIntegerInRaw('set_id', array_keys($some))
                    ->where(['weeks' => 0, 'day' => $day])
                    ->delete();
                foreach ($some as $set => $version) {
                    $versions[] = ['set_id' => $set, 'day' => $day, 'version' => $version];
                }
            }
            $this->keep($client, $sets, $lines);
            foreach (array_chunk($versions, 1000) as $some) {
                DB::table('rollup_days')->upsert($some, ['set_id', 'day']);
            }
        }, 3);
    }

    /** @param array<int, RollupSet> $sets */
    private function keep(Client $client, array $sets, DayLines $lines): void
    {
        $measures = array_keys(DayLines::MEASURES);
        $ads = $this->adValues->numbers($client, $lines->ads());
        foreach ($lines->all() as $set => $of) {
            $from = $sets[$set]->tellsAds() ? 3 : 2;
            foreach (array_chunk($of, 5000, true) as $some) {
                $keys = array_map(static fn (string $key): array => explode("\0", $key), array_keys($some));
                $numbers = $this->values->numbers(
                    $client,
                    array_merge(...array_map(static fn (array $k): array => array_slice($k, $from), $keys)),
                );
                $rows = [];
                foreach (array_values($some) as $i => $line) {
                    $row = ['set_id' => $set, 'day' => $keys[$i][0], 'currency' => $keys[$i][1]];
                    for ($n = 0; $n < RollupSet::MOST; $n++) {
                        $value = $keys[$i][2 + $n] ?? '';
                        $row["d{$n}"] = $n < $from - 2 ? $ads[(int) $value] : $numbers[$value];
                    }
                    $rows[] = $row + array_combine($measures, $line);
                }
                Bulk::insert('rollups', $rows);
            }
        }
    }
}
