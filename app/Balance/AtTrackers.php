<?php

namespace App\Balance;

use App\Models\Client;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * What was lost behind click trackers: what each says it sent on, less what landed by it on the same days. It may have
 * sent on clicks of ads that nobody has told us of: more than the platforms' clicks of ours can't be missing here.
 *
 * A tracker does not say whose ads were clicked: of a platform or account it is known only where no other's clicks pass
 * the same tracker.
 */
final class AtTrackers
{
    private const COLUMNS = ['platform' => 'w.platform', 'account' => 'n.account_id'];

    private const LANDED = ['arrived', 'elsewhere', 'empty', 'raw'];

    /** @return array<string, int> by the key of a line, '' where it is told of all together; of others nobody knows */
    public static function lost(Asked $asked): array
    {
        [$by, $within] = [$asked->by(), $asked->within];
        $of = self::ofEach($asked);
        $level = $by ?? $within[0] ?? null;
        if ($of === [] || ($level !== null && ! isset(self::COLUMNS[$level]))) {
            return [];
        }
        if ($level === null) {
            return ['' => array_sum($of)];
        }
        $lost = [];
        foreach (self::whose($asked->client, $level, array_keys($of)) as $tracker => $keys) {
            if (count($keys) === 1 && ($by !== null || $keys[0] === (string) ($within[1] ?? ''))) {
                $key = $by === null ? '' : $keys[0];
                $lost[$key] = ($lost[$key] ?? 0) + $of[$tracker];
            }
        }

        return $lost;
    }

    /** @return array<int, int> by tracker, of those whose counts are known */
    private static function ofEach(Asked $asked): array
    {
        $landed = "'".implode("', '", self::LANDED)."'";

        return DB::table('hop_counts as c')
            ->join('trackers as t', 't.id', 'c.tracker_id')
            ->joinSub(
                StairLines::for(new Asked($asked->client, $asked->from, $asked->to))
                    ->whereNotNull('tracker_id')
                    ->groupBy('tracker_id', 'day')
                    ->selectRaw("tracker_id, day, sum(if(step = 'clicks', n, 0)) clicks")
                    ->selectRaw("sum(if(step in ({$landed}), n, 0)) landed"),
                'l',
                static fn ($join) => $join->on('l.tracker_id', 'c.tracker_id')->on('l.day', 'c.day'),
            )
            ->where('t.client_id', $asked->client->id)
            ->groupBy('c.tracker_id')
            ->selectRaw('c.tracker_id, sum(c.clicks) sent, sum(l.clicks) clicks, sum(l.landed) landed')
            ->get()
            ->mapWithKeys(static fn (object $r): array => [
                (int) $r->tracker_id => max(0, min((int) $r->sent, (int) $r->clicks) - (int) $r->landed),
            ])
            ->all();
    }

    /**
     * @param list<int> $trackers
     * @return array<int, list<string>> by tracker: whose ads' clicks pass it
     */
    private static function whose(Client $client, string $level, array $trackers): array
    {
        return DB::table('wanted_lines as w')
            ->join('nodes as n', 'n.id', 'w.node_id')
            ->where('w.client_id', $client->id)
            ->whereIn('w.tracker_id', $trackers)
            ->distinct()
            ->get(['w.tracker_id', self::COLUMNS[$level].' as of'])
            ->groupBy('tracker_id')
            ->map(static fn (Collection $rows): array => $rows->pluck('of')->map(strval(...))->values()->all())
            ->all();
    }
}
