<?php

namespace Tests\Feature;

use App\Arrivals\Keeping;
use App\Arrivals\Sites;
use App\Arrivals\Visitor;
use App\Collecting\Incoming;
use App\Collecting\Row;
use App\Models\Arrival;
use App\Models\Collector;
use App\Models\Node;
use App\Results\By;
use App\Results\Dimension;
use App\Results\Question;
use App\Results\Sums;
use App\Watching\Gathering;
use App\Watching\PlanKeys;
use App\Watching\Sharing;
use App\Watching\Told;
use App\Watching\Touched;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Watch\Attribution;
use Vestigon\Core\Watch\Conversion;
use Vestigon\Core\Watch\Days;
use Vestigon\Core\Watch\Event;
use Vestigon\Core\Watch\Instant;
use Vestigon\Core\Watch\Line;
use Vestigon\Core\Watch\Model;
use Vestigon\Core\Watch\Report;
use Vestigon\Core\Watch\Session;
use Vestigon\Core\Watch\Told as Listener;
use Vestigon\Core\Watch\Watching;

/** What clicks brought, in the database: as the core tells of all events at once, in whatever order they come. */
final class ResultsTest extends TestCase
{
    private const BEGIN = '2026-10-24T20:00:00.000Z'; // the clocks go back in the night to the 25th

    private Collector $site;

    protected function setUp(): void
    {
        parent::setUp();
        $this->client->update(['time_zone' => 'Europe/Oslo', 'currency' => 'EUR']);
        $this->site = $this->client->collectors()->create(['site' => 'Shop', 'hosts' => ['shop.example']]);
    }

    /** @return list<array<string, mixed>> a random story of some visitors over five days */
    private static function story(int $seed): array
    {
        mt_srand($seed);
        $events = [];
        $begin = (int) Instant::read(self::BEGIN);
        for ($i = 1; $i <= 160; $i++) {
            $pairs = array_filter(
                [
                    mt_rand(0, 2) === 0 ? 'utm_source='.['a', 'b', 'A'][mt_rand(0, 2)].'&utm_medium=cpc' : '',
                    mt_rand(0, 3) === 0 ? 'nqcid=click'.mt_rand(1, 6) : '',
                    mt_rand(0, 2) === 0 ? 'quay=north%20'.mt_rand(1, 2).'&quay=second' : '',
                ],
                strlen(...),
            );
            $isView = mt_rand(0, 4) > 0;
            $events[] = [
                'id' => $i,
                'at' => Instant::text($begin + mt_rand(0, 5 * 24 * 60) * 60_000 * (mt_rand(0, 1) ?: 1)),
                'kind' => $isView ? 'view' : 'convert',
                'url' => 'https://shop.example/'.
                    ['', 'book', 'cabins'][mt_rand(0, 2)].
                    ($isView && $pairs !== [] ? '?'.implode('&', $pairs) : ''),
                'referrer' => ['', '', 'https://seek.example/', 'https://shop.example/'][mt_rand(0, 3)],
                ...mt_rand(0, 6) > 0 ? ['visitor' => 'v'.mt_rand(1, 9)] : [],
                ...$isView
                    ? []
                    : array_filter(
                        [
                            'value' => mt_rand(-50, 5000),
                            'currency' => ['EUR', 'EUR', 'JPY'][mt_rand(0, 2)],
                            'order' => mt_rand(0, 2) > 0 ? 'o'.mt_rand(1, 12) : null,
                            'click' => mt_rand(0, 4) === 0 ? 'click'.mt_rand(1, 8) : null,
                            'test' => mt_rand(0, 9) === 0 ?: null,
                            'items' => self::someItems(),
                        ],
                        static fn (mixed $v): bool => $v !== null,
                    ),
            ];
        }

        return $events;
    }

    /** @return list<array<string, mixed>> */
    private static function someItems(): array
    {
        $items = [];
        for ($n = mt_rand(0, 3); $n > 0; $n--) {
            $id = mt_rand(1, 5);
            $items[] = ['id' => "i{$id}", 'name' => "Item {$id}", 'quantity' => 1, 'value' => mt_rand(-20, 3000)];
        }

        return $items;
    }

    /** The number of a key that stands in the client's plan, from now on at the latest. */
    private function quay(): int
    {
        $plan = PlanReader::read(new Cursor([
            ...self::PLAN,
            'parameters' => [...self::PLAN['parameters'], ['key' => 'quay', 'parts' => [['field' => 'device']]]],
        ]));
        app(PlanKeys::class)->learn($this->client->fresh(), $plan);
        while (app(Gathering::class)->some() > 0); // what had arrived with it before

        return app(PlanKeys::class)->of($this->client)['quay'];
    }

    /** @return list<By> all that a client's results are told by */
    private function all(): array
    {
        $plain = array_filter(Dimension::cases(), static fn (Dimension $d): bool => $d !== Dimension::Key);

        return [...array_map(By::of(...), array_values($plain)), By::key($this->quay(), 'key.quay')];
    }

    /** @param list<array<string, mixed>> $items */
    private function come(array $items): void
    {
        $all = array_map(fn (array $i): Incoming => Incoming::read($i, (string) $this->site->id), $items);
        $site = $this->site->fresh();
        app(Keeping::class)->keep($site, $all, Row::all(app(Sites::class)->of($site), $all));
        while (app(Gathering::class)->some() > 0);
    }

    /**
     * @param list<array<string, mixed>> $items
     * @return list<Event> in their order, as the database numbers them
     */
    private function events(array $items): array
    {
        $numbers = DB::table('arrivals')->pluck('id', 'external_id');
        $events = array_map(function (array $i) use ($numbers): Event {
            $event = Incoming::read($i, (string) $this->site->id)->event;

            return new Event(...['id' => sprintf('%09d', $numbers[$i['id']])] + get_object_vars($event));
        }, $items);
        usort($events, Event::inOrder(...));

        return $events;
    }

    /** @return iterable<string, array{int, Model}> */
    public static function stories(): iterable
    {
        foreach ([Model::Last, Model::First, Model::Even] as $model) {
            foreach (range(1, 4) as $n) {
                yield "{$model->value} {$n}" => [$n * 17 + ord($model->value[0]), $model];
            }
        }
    }

    #[DataProvider('stories')]
    public function test_sessions_shares_and_sums_are_the_core_s_in_whatever_order_events_come(
        int $seed,
        Model $model,
    ): void {
        $this->client->update(['watching' => ['attribution' => ['model' => $model->value, 'days' => 2]]]);
        $story = self::story($seed);
        $shuffled = [...$story, ...array_slice($story, 0, 40)]; // some come twice
        shuffle($shuffled);
        foreach (array_chunk($shuffled, 23) as $some) {
            $this->come($some);
        }
        $this->assertAsTheCoreTells($story, $model);

        // somebody who asks to be forgotten: as if they had never come
        $theirs = Arrival::query()->where('visitor', 'v3')->count();
        self::assertGreaterThan(5, $theirs);
        $one = Arrival::query()->where('visitor', 'v3')->firstOrFail();
        self::assertCount($theirs, app(Visitor::class)->records($one)['events']);
        self::assertSame($theirs, app(Visitor::class)->forget($one));
        while (app(Gathering::class)->some() > 0);
        $this->come($story); // what is sent again of it does not come again
        self::assertSame(0, Arrival::query()->where('visitor', 'v3')->count());
        $others = array_filter($story, static fn (array $e): bool => ($e['visitor'] ?? null) !== 'v3');
        $this->assertAsTheCoreTells(array_values($others), $model);
    }

    /** @param list<array<string, mixed>> $story all that has come */
    private function assertAsTheCoreTells(array $story, Model $model): void
    {
        $told = app(Told::class);
        $client = $this->client->fresh();
        $heard = new class implements Listener {
            /** @var list<Session> */
            public array $sessions = [];

            /** @var list<Conversion> */
            public array $conversions = [];

            public function session(Session $session): void
            {
                $this->sessions[] = $session;
            }

            public function conversion(Conversion $conversion): void
            {
                $this->conversions[] = $conversion;
            }

            public function repeated(Event $event): void {}
        };
        $quay = $this->quay();
        $report = new Report(['day', 'channel', 'source'], new Days('Europe/Oslo'));
        $bought = new Report(['item', 'quay'], new Days('Europe/Oslo'));
        $both = new \Vestigon\Core\Watch\Several([$heard, $report, $bought]);
        $watching = new Watching($told->origins($client), new Attribution($model, 2), [], $both);
        foreach ($this->events($story) as $event) {
            $watching->event($event);
        }
        $watching->end();

        $wanted = array_map(
            static fn (Session $s): string => implode(' ', [
                $s->visitor ?? '-',
                Instant::text($s->begin),
                Instant::text($s->end),
                $s->views,
                $s->origin->keys['source'],
                $s->origin->channel,
                (int) $s->isTracked(),
            ]),
            $heard->sessions,
        );
        $kept = DB::table('site_sessions')
            ->get()
            ->map(
                static fn (object $s): string => implode(' ', [
                    $s->visitor ?? '-',
                    str_replace(' ', 'T', $s->begin).'Z',
                    str_replace(' ', 'T', $s->end).'Z',
                    $s->views,
                    $s->source,
                    $s->channel,
                    $s->is_tracked,
                ]),
            )
            ->all();
        sort($wanted);
        sort($kept);
        self::assertSame($wanted, $kept);
        self::assertGreaterThan(50, count($kept));

        $shares = [];
        foreach ($heard->conversions as $conversion) {
            foreach ($conversion->shares as $share) {
                $shares[] =
                    (int) $conversion->event->id.
                    ' '.
                    Instant::text($share->session->begin ?? 0).
                    " {$share->part} {$share->value}";
            }
        }
        $keptShares = DB::table('shares as c')
            ->join('site_sessions as s', 's.id', 'c.session_id')
            ->get(['c.conversion_id', 's.begin', 'c.part', 'c.value'])
            ->map(
                static fn (object $c): string => "{$c->conversion_id} ".
                    str_replace(' ', 'T', $c->begin).
                    "Z {$c->part} {$c->value}",
            )
            ->all();
        sort($shares);
        sort($keptShares);
        self::assertSame($shares, $keptShares);
        self::assertNotSame([], $shares);

        foreach (
            [
                [$report, array_map(By::of(...), [Dimension::Day, Dimension::Channel, Dimension::Source])],
                [$bought, [By::of(Dimension::Item), By::key($quay, 'quay')]],
            ] as [$told, $by]
        ) {
            $lines = app(Sums::class)->of($client, new Question($by, '2026-10-01', '2026-11-30'));
            ksort($lines, SORT_STRING);
            self::assertGreaterThan(5, count($lines));
            self::assertEquals(
                $told->toArray(),
                array_map(static fn (Line $l): array => $l->toArray(), array_values($lines)),
            );
        }
    }

    public function test_sums_are_those_of_plain_sql_and_of_each_other(): void
    {
        foreach ([3, 4] as $seed) {
            $this->come(
                array_map(
                    static fn (array $e): array => ['id' => $e['id'] + 1000 * $seed] + $e,
                    self::story($seed),
                ),
            );
        }
        $of = static fn (array $by, array $where = []): array => app(Sums::class)->of(
            \App\Models\Client::query()->firstOrFail(),
            new Question($by, '2026-10-24', '2026-10-31', $where),
        );
        $total = $of([])[''];
        self::assertSame((int) DB::table('arrivals')->where('kind', 'view')->count(), $total->views);
        self::assertSame(
            (int) DB::table('conversions')
                ->where(['is_test' => false, 'is_repeated' => false])
                ->count() * 1_000_000,
            $total->conversions,
        );
        self::assertEquals(
            DB::table('conversions')
                ->where(['is_test' => false, 'is_repeated' => false])
                ->groupBy('currency')
                ->selectRaw('currency, sum(value) value')
                ->pluck('value', 'currency')
                ->map(static fn ($v): int => (int) $v)
                ->sortKeys()
                ->all(),
            collect($total->revenue)->sortKeys()->all(),
        );
        foreach ($this->all() as $by) {
            $sum = new Line([]);
            foreach ($of([$by]) as $line) {
                $sum->addAll($line);
            }
            self::assertEquals($total->toArray(), $sum->toArray(), $by->asked);
            $only = array_map(strval(...), array_column(array_column($of([$by]), 'by'), $by->asked));
            $some = [['by' => $by, 'is' => [$only[0]], 'not' => false]];
            $rest = [['by' => $by, 'is' => [$only[0]], 'not' => true]];
            self::assertSame(
                $total->sessions,
                ($of([], $some)['']->sessions ?? 0) + ($of([], $rest)['']->sessions ?? 0),
                $by->asked,
            );
        }
    }

    public function test_what_was_added_up_is_what_the_records_say_whatever_comes_in_between(): void
    {
        mt_srand(5);
        $story = self::story(5);
        shuffle($story);
        $sums = app(Sums::class);
        $all = $this->all();
        $asked = $weeks = 0;
        foreach (array_chunk($story, 20) as $n => $some) {
            $this->come($some);
            if ($n % 2 === 1) {
                $this->artisan('results:roll'); // what it adds up by week is stale when more comes
                $weeks += DB::table('rollups')->where('weeks', '>', 0)->count();
            }
            if ($n === 4) {
                $this->client->update(['watching' => ['attribution' => ['model' => 'even', 'days' => 3]]]);
                Touched::all($this->client->id, '2026-10-01');
                while (app(Gathering::class)->some() > 0);
            }
            for ($i = 0; $i < 12; $i++) {
                $by = array_map(
                    static fn (int $k): By => $all[$k],
                    (array) array_rand($all, mt_rand(1, 2)),
                );
                $condition = $all[array_rand($all)];
                $question = new Question(
                    $by,
                    '2026-10-2'.mt_rand(4, 6),
                    ['2026-10-27', '2026-10-31', '2026-11-01', '2026-11-03'][mt_rand(0, 3)],
                    mt_rand(0, 1) === 0
                        ? []
                        : [[
                            'by' => $condition,
                            'is' => ['cpc', '', 'a', 'Paid', 'i2', 'north 1'],
                            'not' => mt_rand(0, 1) === 0,
                        ]],
                );
                $kept = $sums->of($this->client->fresh(), $question);
                $told = $sums->ofRecords($this->client->fresh(), $question);
                ksort($kept, SORT_STRING);
                ksort($told, SORT_STRING);
                self::assertEquals(
                    array_map(static fn (Line $l): array => $l->toArray(), $told),
                    array_map(static fn (Line $l): array => $l->toArray(), $kept),
                );
                $asked += count($kept);
            }
        }
        self::assertGreaterThan(100, $asked);
        self::assertGreaterThan(100, $weeks);
        $rows = static fn (): array => DB::table('rollups')
            ->join('rollup_sets', 'rollup_sets.id', 'set_id')
            ->whereColumn('day', '>=', 'first_day') // earlier ones can be there for the sake of other sets
            ->orderByRaw('set_id, weeks, day, d0, d1, d2, d3, currency')
            ->get([
                ...['set_id', 'weeks', 'day', 'd0', 'd1', 'd2', 'd3', 'currency'],
                ...['sessions', 'views', 'part', 'value', 'net'],
            ])
            ->all();
        $this->artisan('results:roll');
        $before = $rows();
        $this->artisan('results:roll --anew');
        self::assertEquals($before, $rows());
        self::assertNotSame([], $before);
    }

    public function test_an_order_that_is_handed_in_earlier_counts_and_what_was_taken_back_is_taken_away(): void
    {
        $bought = static fn (int $id, string $at, int $value): array => [
            'id' => $id,
            'at' => $at,
            'kind' => 'convert',
            'url' => 'https://shop.example/thanks',
            'visitor' => 'v1',
            'order' => 'o1',
            'value' => $value,
            'currency' => 'EUR',
        ];
        $this->come([$bought(1, '2026-10-05T09:00:00Z', 5000)]);
        $this->come([$bought(2, '2026-10-05T08:00:00Z', 4000)]);
        self::assertSame([4000], DB::table('shares')->pluck('value')->all());
        self::assertSame(
            DB::table('arrivals')->where('external_id', 1)->value('id'),
            DB::table('conversions')->where('is_repeated', true)->value('arrival_id'),
        );

        DB::table('refunds')->insert([
            'collector_id' => $this->site->id,
            'external_id' => 1,
            'order_number' => 'o1',
            'at' => '2026-10-09 09:00:00',
            'value' => 1500,
        ]);
        app(Sharing::class)->ofOrders($this->client, $this->site->id, ['o1']);
        self::assertSame([2500], DB::table('shares')->pluck('net')->all());
        $sums = $this->ask(['by' => []])->json('total.now');
        self::assertSame([['EUR' => 4000], ['EUR' => 2500]], [$sums['revenue'], $sums['net']]);
    }

    /** @param array<string, mixed> $more */
    private function ask(array $more, string $what = ''): \Illuminate\Testing\TestResponse
    {
        return $this->api(
            'POST',
            "/results{$what}",
            $more + ['by' => [], 'from' => '2026-10-01', 'to' => '2026-10-31'],
        )->assertOk();
    }

    public function test_lines_are_told_largest_first_folded_named_beside_other_days_and_opened(): void
    {
        $this->come(
            array_merge(
                ...array_map(
                    static fn (int $n): array => array_map(
                        static fn (int $i): array => [
                            'id' => $n * 100 + $i,
                            'at' => sprintf('2026-10-%02dT09:%02d:00Z', $n > 3 ? 12 : 5, $i),
                            'kind' => 'view',
                            'url' => "https://shop.example/?utm_source=s{$n}&utm_medium=cpc",
                            'visitor' => "v{$n}-{$i}",
                        ],
                        range(1, $n),
                    ),
                    range(1, 5),
                ),
            ),
        );
        $told = $this->ask([
            'by' => ['source'],
            'from' => '2026-10-08',
            'to' => '2026-10-14',
            'beside' => 'before',
            'limit' => 1,
        ])->json();
        self::assertSame(['from' => '2026-10-01', 'to' => '2026-10-07'], $told['beside']);
        self::assertSame(
            [['s5'], 5, 0],
            [
                $told['lines'][0]['by'],
                $told['lines'][0]['now']['sessions'],
                $told['lines'][0]['before']['sessions'],
            ],
        );
        self::assertSame(
            [4, 4, 6],
            [$told['others']['lines'], $told['others']['now']['sessions'], $told['others']['before']['sessions']],
        );
        self::assertSame([9, 6], [$told['total']['now']['sessions'], $told['total']['before']['sessions']]);

        $site = $this->ask([
            'by' => ['site'],
            'where' => [['by' => 'site', 'is' => [(string) $this->site->id]]],
        ])->json();
        self::assertSame([(string) $this->site->id => 'Shop'], $site['names'][0]);
        self::assertSame([(string) $this->site->id => 'Shop'], $site['asked'][0]);

        $behind = $this->ask(['where' => [['by' => 'source', 'is' => ['s2']]]], '/sessions')->json();
        self::assertSame([2, false], [count($behind['items']), $behind['more']]);
        $sheet = $this->ask(['by' => ['source'], 'kind' => 'csv'], '/file');
        $lines = file($sheet->baseResponse->getFile()->getPathname(), FILE_IGNORE_NEW_LINES);
        self::assertStringStartsWith('source,impressions,clicks,views,sessions', $lines[0]);
        self::assertSame('s5,0,0,5,5,5,5,0,,,', rtrim($lines[1]));
    }

    public function test_lines_are_told_by_parts_of_names_too(): void
    {
        $account = $this->imported();
        $campaigns = Node::query()->where(['account_id' => $account->id, 'level' => 'campaign'])->orderBy('id')->get();
        $of = static fn (int $campaign): string => ['Halvey', 'Skerrow', ''][$campaign % 3];
        foreach ($campaigns as $campaign) {
            $campaign->update(['name' => $of($campaign->id) === '' ? 'as it was' : "{$of($campaign->id)} | Brand"]);
        }
        $this->come(self::story(3));
        $sessions = DB::table('site_sessions')->orderBy('id')->pluck('id')->all();
        foreach ($sessions as $i => $session) {
            $campaign = $campaigns[$i % count($campaigns)]->id;
            $is = ['campaign_id' => $i % 4 === 0 ? null : $campaign];
            DB::table('site_sessions')->where('id', $session)->update($is);
        }
        $part = 'campaign.part.market';
        $period = ['from' => '2026-10-01', 'to' => '2026-11-30'];
        $this->api('POST', '/results', ['by' => [$part]] + $period)->assertStatus(422);
        $this->api('PUT', '/agreements/names', ['revision' => 0, 'document' => ['patterns' => [[
            'format' => 'vestigon.naming/1',
            'separator' => ' | ',
            'for' => ['levels' => ['campaign']],
            'parts' => [['name' => 'market', 'words' => ['Halvey', 'Skerrow']], ['name' => 'aim']],
        ]]]])->assertOk();

        $wanted = ['Halvey' => 0, 'Skerrow' => 0, '' => 0];
        foreach (DB::table('site_sessions')->where('views', '>', 0)->pluck('campaign_id') as $campaign) {
            $wanted[$campaign === null ? '' : $of($campaign)]++;
        }
        $told = fn (array $where, array $by = []): array => array_map(
            static fn (array $line): array => [...$line['by'], $line['now']['sessions']],
            $this->ask(['by' => [$part, ...$by], 'where' => $where] + $period)->json('lines'),
        );
        $lines = array_column($told([]), 1, 0);
        self::assertEqualsCanonicalizing($wanted, $lines);
        self::assertSame($wanted, array_replace($wanted, $lines));
        foreach ([['Halvey'], ['Skerrow', ''], ['']] as $is) {
            $only = array_column($told([['by' => $part, 'is' => $is]]), 1, 0);
            self::assertSame(array_intersect_key($wanted, array_flip($is)), array_replace(array_intersect_key(
                $wanted,
                array_flip($is),
            ), $only));
            self::assertCount(count($is), $only);
            $behind = $this->ask(['where' => [['by' => $part, 'is' => $is]], 'limit' => 1000] + $period, '/sessions');
            $parts = DB::table('site_sessions')->pluck('campaign_id')
                ->map(static fn (?int $campaign): string => $campaign === null ? '' : $of($campaign));
            self::assertCount($parts->intersect($is)->count(), $behind->json('items'));
        }
        $others = $told([['by' => $part, 'is' => ['Halvey'], 'not' => true]]);
        self::assertArrayNotHasKey('Halvey', array_column($others, 1, 0));
        // deeper, beside the campaigns themselves: all parts of a line add up to it
        foreach ($told([], ['ad-campaign']) as [$market, $campaign, $count]) {
            self::assertSame($campaign === '' ? '' : $of((int) $campaign), $market);
            $wanted[$market] -= $count;
        }
        self::assertSame(['Halvey' => 0, 'Skerrow' => 0, '' => 0], $wanted);
        $file = $this->ask(['by' => [$part], 'kind' => 'csv'] + $period, '/file')->baseResponse->getFile();
        self::assertStringStartsWith("{$part},", (string) file_get_contents($file->getPathname()));
    }

    public function test_lines_are_told_by_keys_of_the_plan_and_by_what_was_bought(): void
    {
        $view = static fn (int $id, string $visitor, string $query): array => [
            'id' => $id,
            'at' => "2026-10-05T09:0{$id}:00Z",
            'kind' => 'view',
            'url' => "https://shop.example/?{$query}",
            'visitor' => $visitor,
        ];
        $this->come([
            $view(1, 'v1', 'quay=n%C3%B6rd&quay=s&utm_source=a'),
            $view(2, 'v2', 'quay=s&utm_source=a'),
            $view(3, 'v3', 'utm_source=b'),
        ]);
        $this->come([[
            'id' => 4,
            'at' => '2026-10-07T09:00:00Z',
            'kind' => 'convert',
            'url' => 'https://shop.example/thanks',
            'visitor' => 'v1',
            'order' => 'o1',
            'value' => 10_000,
            'currency' => 'EUR',
            'items' => [
                ['id' => 'cabin', 'name' => 'A cabin', 'quantity' => 1, 'value' => 6000],
                ['id' => 'meal', 'quantity' => 2, 'value' => 3500],
            ],
        ]]);
        $this->api('POST', '/results', ['by' => ['key.quay'], 'from' => '2026-10-01', 'to' => '2026-10-31'])
            ->assertStatus(422);
        $saved = $this->api('PUT', '/plan', ['revision' => 0, 'document' => [
            ...self::PLAN,
            'parameters' => [...self::PLAN['parameters'], ['key' => 'quay', 'parts' => [['field' => 'device']]]],
        ]])->assertOk();
        self::assertSame(['quay'], $saved->json('otherKeys')); // the others have columns of their own
        while (app(Gathering::class)->some() > 0);

        $told = fn (array $more): array => array_map(
            static fn (array $l): array => [
                ...$l['by'],
                $l['now']['sessions'],
                $l['now']['conversions'],
                $l['now']['revenue']['EUR'] ?? 0,
            ],
            $this->ask($more + ['order' => 'revenue'])->json('lines'),
        );
        self::assertSame(
            [['nörd', 1, 1, 10_000], ['', 1, 0, 0], ['s', 1, 0, 0]],
            $told(['by' => ['key.quay']]),
        );
        self::assertSame(
            [['cabin', 0, 0.5, 6000], ['meal', 0, 0.5, 3500], ['', 3, 0, 500]],
            $told(['by' => ['item']]),
        );
        self::assertSame(
            [['nörd', 0, 0.5, 3500]],
            $told(['by' => ['key.quay'], 'where' => [['by' => 'item', 'is' => ['meal']]]]),
        );
        self::assertSame(['cabin' => 'A cabin'], $this->ask(['by' => ['item']])->json('names.0'));

        $behind = fn (string $item, bool $not): array => array_map(
            static fn (array $s): array => [$s['source'], $s['conversions'], $s['revenue']],
            $this->ask(['where' => [['by' => 'item', 'is' => [$item], 'not' => $not]]], '/sessions')->json('items'),
        );
        self::assertSame([['a', 0.5, 3500]], $behind('meal', false));
        self::assertSame(
            [['(direct)', 0, null], ['b', 0, null], ['a', 0, null], ['a', 0.5, 6500]],
            $behind('meal', true),
        );
        $this->ask(['where' => [['by' => 'key.quay', 'is' => ['s']]]], '/sessions')->assertJsonCount(1, 'items');
        foreach (['key.berth', 'key.', 'key'] as $none) {
            $this->api('POST', '/results', ['by' => [$none], 'from' => '2026-10-01', 'to' => '2026-10-31'])
                ->assertStatus(422);
        }
    }

    public function test_what_a_platform_says_stands_beside_what_came_and_its_last_days_are_said_again(): void
    {
        $this->api('PUT', '/plan', ['revision' => 0, 'document' => [
            ...self::PLAN,
            'parameters' => [
                ...self::PLAN['parameters'],
                ['key' => 'vg_ad', 'parts' => [['field' => 'ad.id']]],
                ['key' => 'vg_device', 'parts' => [['field' => 'device']]],
            ],
        ]])->assertOk();
        $account = $this->imported();
        $this->standins('/people', ['days' => 6, 'seed' => 5]);
        $this->artisan('figures:read')->assertSuccessful();
        $from = now()->subDays(6)->toDateString();
        $ask = fn (array $more): array => $this->ask(
            $more + ['by' => [], 'from' => $from, 'to' => now()->toDateString()],
        )->json();
        $all = $ask([])['total']['now'];
        self::assertGreaterThan(100, $all['clicks']);
        $byAd = $ask(['by' => ['ad'], 'limit' => 1000]);
        self::assertSame($all['clicks'], array_sum(array_column(array_column($byAd['lines'], 'now'), 'clicks')));
        $ad = Node::query()->findOrFail($byAd['lines'][0]['by'][0]);
        self::assertSame($ad->name, $byAd['names'][0][$ad->id]);
        $campaigns = $ask(['by' => ['ad-campaign']]);
        self::assertEqualsCanonicalizing(
            Node::query()->where('account_id', $account->id)->where('level', 'campaign')->pluck('name')->all(),
            array_values($campaigns['names'][0]),
        );
        self::assertFalse($ask(['by' => ['keyword']])['figures']);
        // by keys of the plan as it wants them; what it leaves open, platforms don't say
        $byKey = $ask(['by' => ['key.vg_ad'], 'limit' => 1000])['lines'];
        $numbers = Node::query()->where('account_id', $account->id)->pluck('external_id', 'id');
        self::assertEqualsCanonicalizing(
            array_map(
                static fn (array $l): array => [(string) $numbers[$l['by'][0]], $l['now']['clicks']],
                $byAd['lines'],
            ),
            array_map(static fn (array $l): array => [$l['by'][0], $l['now']['clicks']], $byKey),
        );
        $open = $ask(['by' => ['key.vg_device']]);
        self::assertSame([[''], $all['clicks']], [$open['lines'][0]['by'], $open['lines'][0]['now']['clicks']]);

        DB::table('figures')
            ->where('day', now()->subDays(2)->toDateString())
            ->update(['clicks' => 1_000_000]);
        DB::table('figures')
            ->where('day', $from)
            ->update(['clicks' => 7]);
        $this->artisan('figures:read')->assertSuccessful();
        self::assertSame(0, DB::table('figures')->where('clicks', 1_000_000)->count());
        self::assertGreaterThan(0, DB::table('figures')->where('clicks', 7)->count()); // longer ago than they restate
    }

    public function test_what_cannot_be_asked_is_refused_with_what_and_where(): void
    {
        $ask = fn (array $more) => $this->api(
            'POST',
            '/results',
            $more + [
                'by' => ['channel'],
                'from' => '2026-10-01',
                'to' => '2026-10-31',
            ],
        );
        foreach (
            [
                'by.0' => ['by' => ['weather']],
                'by' => ['by' => ['channel', 'source', 'medium', 'ad']],
                'to' => ['to' => '2026-09-01'],
                'from' => ['from' => 'yesterday'],
                'where.0.is' => ['where' => [['by' => 'channel', 'is' => []]]],
                'order' => ['order' => 'id; drop table'],
            ] as $field => $more
        ) {
            $ask($more)
                ->assertStatus(422)
                ->assertJsonValidationErrors([$field]);
        }
        $ask(['from' => '2020-01-01'])
            ->assertStatus(422)
            ->assertJsonFragment(['At most 800 days can be looked at together.']);
    }
}
