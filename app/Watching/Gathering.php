<?php

namespace App\Watching;

use App\Links\Origins;
use App\Models\Collector;
use App\Results\ResultDays;
use App\Support\Bulk;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Watch\Instant;

/**
 * Puts what has arrived together to sessions. Of a visitor of whom something new is known, the session in which that
 * was, and those after it, are made anew; those before it can't be others.
 */
final class Gathering
{
    /** So many visitors at once. */
    private const AT_ONCE = 4000;

    private const ROWS = 1000;

    public function __construct(
        private readonly SessionRows $sessionRows,
        private readonly Sharing $sharing,
    ) {}

    /** @return int how many visitors there was something new of; 0: nothing is left to do */
    public function some(): int
    {
        return DB::transaction(function (): int {
            $touched = DB::table('touched')->limit(self::AT_ONCE)->lock('for update skip locked')->get();
            foreach ($touched->groupBy('collector_id') as $id => $some) {
                $collector = Collector::query()->with('client')->find($id);
                $who = $some->pluck('since', 'who')->all();
                if ($collector !== null) {
                    $this->gather($collector, $who);
                }
                DB::table('touched')
                    ->where('collector_id', $id)
                    ->whereIn('who', array_map(strval(...), array_keys($who)))
                    ->delete();
            }

            return $touched->count();
        }, 3);
    }

    /** @param array<string, string> $who since when something new is known of them */
    private function gather(Collector $collector, array $who): void
    {
        $visitors = $alone = [];
        foreach ($who as $word => $since) {
            $word = (string) $word;
            if ($word[0] === 'a') {
                $alone[] = (int) substr($word, 1);
            } else {
                $visitors[] = ['v' => substr($word, 1), 's' => $since];
            }
        }
        $from = $this->from($collector, $visitors);
        $rows = [...$this->events($collector, $from), ...$this->aloneOf($alone)];
        [$gone, $days] = $this->clear($collector, $from, $alone);
        [$sessions, $conversions] = $this->sessionRows->of($collector->client, $rows, $this->before($collector, $from));
        $sessions = Origins::told($collector->client, $sessions);
        Bulk::insert('site_sessions', $sessions);
        ResultDays::changed($collector->client_id, [...$days, ...array_column($sessions, 'day')]);
        $clicks = array_filter([...$gone, ...array_column($sessions, 'click_id')], strlen(...));
        $this->sharing->again($collector->client, $conversions, array_values(array_unique($clicks)));
    }

    /**
     * From when on each visitor's sessions are made anew.
     *
     * @param list<array{v: string, s: string}> $visitors
     * @return list<array{v: string, s: string}>
     */
    private function from(Collector $collector, array $visitors): array
    {
        $rows = DB::select(
            'select v.v, (select max(begin) from site_sessions s
                where s.collector_id = ? and s.visitor = v.v and s.begin <= v.s) s
            from '.
                self::LIST.
                ' v',
            [$collector->id, self::json($visitors)],
        );

        return array_map(
            static fn (object $r): array => ['v' => (string) $r->v, 's' => $r->s ?? '1970-01-01 00:00:00.000'],
            $rows,
        );
    }

    public const LIST = "json_table(?, '$[*]' columns (v varchar(64) path '$.v', s datetime(3) path '$.s'))";

    public const EVENT =
        'a.id, a.at, a.kind, a.url, a.referrer, a.visitor, a.device, a.campaign, a.term, a.content, a.click_id, '.
        'a.keyword, a.placement, a.node_id, a.collector_id';

    /**
     * @param list<array{v: string, s: string}> $from
     * @return list<object>
     */
    private function events(Collector $collector, array $from): array
    {
        return DB::select(
            'select '.
                self::EVENT.
                ' from '.
                self::LIST.
                ' v
            join arrivals a on a.collector_id = ? and a.visitor = v.v and a.at >= v.s
            order by a.visitor, a.at, a.id',
            [self::json($from), $collector->id],
        );
    }

    /**
     * @param list<int> $ids
     * @return list<object>
     */
    private function aloneOf(array $ids): array
    {
        return $ids === []
            ? []
            : DB::select(
                'select '.
                    self::EVENT.
                    ' from arrivals a where a.id in ('.
                    implode(',', $ids).
                    ') order by id',
            );
    }

    /**
     * When each visitor's last session before began.
     *
     * @param list<array{v: string, s: string}> $from
     * @return array<string, int>
     */
    public function before(Collector $collector, array $from): array
    {
        $rows = DB::select(
            'select v.v, (select max(begin) from site_sessions s
                where s.collector_id = ? and s.visitor = v.v and s.begin < v.s and s.views > 0) s
            from '.
                self::LIST.
                ' v',
            [$collector->id, self::json($from)],
        );
        $before = [];
        foreach ($rows as $r) {
            if ($r->s !== null) {
                $before[(string) $r->v] = self::at($r->s);
            }
        }

        return $before;
    }

    /**
     * @param list<array{v: string, s: string}> $from
     * @param list<int> $alone
     * @return array{list<string>, list<string>} the click IDs of what is gone, and its days
     */
    private function clear(Collector $collector, array $from, array $alone): array
    {
        $rows = DB::select(
            'select s.id, s.click_id, s.day from '.
                self::LIST.
                ' v
            join site_sessions s on s.collector_id = ? and s.visitor = v.v and s.begin >= v.s',
            [self::json($from), $collector->id],
        );
        $sessions = static fn (array $ids) => DB::table('site_sessions')->whereIntegerInRaw('id', $ids);
        array_push($rows, ...$alone === [] ? [] : $sessions($alone)->get(['id', 'click_id', 'day']));
        foreach (array_chunk(array_column($rows, 'id'), self::ROWS) as $some) {
            $sessions($some)->delete();
        }

        return [array_column($rows, 'click_id'), array_column($rows, 'day')];
    }

    public static function at(string $instant): int
    {
        return (int) Instant::read(str_replace(' ', 'T', $instant).'Z');
    }

    public static function json(mixed $list): string
    {
        return json_encode($list, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
    }
}
