<?php

namespace App\Meant;

use App\Accounts\LiveTexts;
use App\Agreements\Agreements;
use App\Links\Origins;
use App\Models\Client;
use App\Models\Collector;
use App\Models\Reading;
use App\Support\Bulk;
use App\Watching\Elements;
use App\Watching\Gathering;
use App\Watching\SessionRows;
use App\Watching\Settings;
use App\Watching\Sharing;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;

/**
 * Reads days of a client as they were meant: visitor by visitor, sessions and what counts for them are put together
 * anew from arrivals that say what they should have said. Nothing that arrived is changed.
 */
final readonly class Reader
{
    /** Visitors at once. */
    private const VISITORS = 1000;

    public function __construct(
        private SessionRows $sessionRows,
        private Sharing $sharing,
        private Gathering $gathering,
        private Elements $elements,
        private Agreements $agreements,
    ) {}

    public function read(Reading $reading): void
    {
        $client = $reading->client;
        $isThen = $reading->names === 'then';
        $healing = new Healing($client, new Paths($this->elements, $isThen), $isThen, $this->agreements);
        [$since, $until] = self::between($client, $reading);
        $reading->update(['total' => self::arrivals($client, $since, $until)->count()]);
        $in = [];
        foreach ($client->collectors()->orderBy('id')->get() as $collector) {
            foreach ($this->chunks($collector, $since, $until) as [$who, $rows]) {
                $before = $who === [] ? [] : $this->gathering->before(
                    $collector,
                    array_map(static fn (string $v): array => ['v' => $v, 's' => $since], $who),
                );
                $in += $this->keep($reading, $client, $healing->heal($rows), $before);
                $reading->increment('done', count($rows));
            }
        }
        $this->share($reading, $client, $in);
        $reading->update([
            'views' => $healing->views,
            'healed' => $healing->healed,
            'unknown' => $healing->unknown,
        ]);
        $values = [];
        foreach ($healing->values as $value => $views) {
            [$name, $arrived, $meant] = explode("\0", (string) $value);
            $values[] = [
                'reading_id' => $reading->id,
                'name' => mb_strcut($name, 0, 120),
                'arrived' => $arrived,
                'meant' => $meant,
                'views' => $views,
            ];
        }
        Bulk::insert('heals', $values, how: 'ignore');
    }

    /**
     * @param list<object> $rows by visitor, in their order
     * @param array<string, int> $before
     * @return array<int, int> conversion → the session that it is in
     */
    private function keep(Reading $reading, Client $client, array $rows, array $before): array
    {
        [$sessions, $conversions] = $this->sessionRows->of($client, $rows, $before);
        $mark = $reading->tables()->mark();
        Bulk::insert('meant_sessions', array_map(
            static fn (array $session): array => $mark + $session,
            Origins::told($client, $sessions),
        ));

        return $conversions;
    }

    /**
     * Once all sessions are there: what names a click counts for whoever came by it.
     *
     * @param array<int, int> $in conversion → the session that it is in
     */
    private function share(Reading $reading, Client $client, array $in): void
    {
        foreach (array_chunk(array_keys($in), self::VISITORS) as $some) {
            $counting = DB::table('conversions')
                ->whereIntegerInRaw('arrival_id', $some)
                ->where(['is_repeated' => false, 'is_test' => false])
                ->get(Sharing::COLUMNS)
                ->each(static function (object $c) use ($in): void {
                    $c->session_id = $in[$c->arrival_id];
                });
            $this->sharing->share($client, $counting, $reading->tables());
        }
    }

    /**
     * @return iterable<array{list<string>, list<object>}> visitors, and their arrivals; those of nobody who is known
     *     again by themselves
     */
    private function chunks(Collector $collector, string $since, string $until): iterable
    {
        $last = '';
        do {
            $who = DB::table('arrivals')
                ->where('collector_id', $collector->id)
                ->where('visitor', '>', $last)
                ->where('at', '>=', $since)
                ->where('at', '<', $until)
                ->distinct()
                ->orderBy('visitor')
                ->limit(self::VISITORS)
                ->pluck('visitor')
                ->map(strval(...))
                ->all();
            $last = end($who);
            if ($who !== []) {
                yield [$who, DB::select(
                    'select '.Gathering::EVENT.' from '.Gathering::LIST.' v
                    join arrivals a on a.collector_id = ? and a.visitor = v.v and a.at >= v.s and a.at < ?
                    order by a.visitor, a.at, a.id',
                    [
                        Gathering::json(array_map(static fn (string $v): array => ['v' => $v, 's' => $since], $who)),
                        $collector->id,
                        $until,
                    ],
                )];
            }
        } while (count($who) === self::VISITORS);
        $alone = DB::table('arrivals as a')
            ->where('a.collector_id', $collector->id)
            ->whereNull('a.visitor')
            ->where('a.at', '>=', $since)
            ->where('a.at', '<', $until)
            ->selectRaw(Gathering::EVENT);
        foreach ($alone->lazyById(self::VISITORS, 'a.id', 'id')->chunk(self::VISITORS) as $some) {
            yield [[], array_values($some->all())];
        }
    }

    /** @return array{string, string} from when sessions may count for conversions of these days, to their end */
    private static function between(Client $client, Reading $reading): array
    {
        $at = static fn (string $day): CarbonImmutable => CarbonImmutable::parse($day, $client->time_zone)->utc();
        $days = Settings::of($client)->attribution->days;

        return [
            $at($reading->from_day)->subDays($days)->format(LiveTexts::PRECISE),
            $at($reading->to_day)->addDays(2)->format(LiveTexts::PRECISE),
        ];
    }

    private static function arrivals(Client $client, string $since, string $until): \Illuminate\Database\Query\Builder
    {
        return DB::table('arrivals')
            ->where('client_id', $client->id)
            ->where('at', '>=', $since)
            ->where('at', '<', $until);
    }
}
