<?php

namespace Tests\Feature;

use App\Results\By;
use App\Results\Dimension;
use App\Results\Question;
use App\Results\Sums;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;
use Vestigon\Core\Watch\Line;

/** Lines come in the order that is asked for, the rest of them added up; nothing is lost between. */
final class ResultsOrderTest extends TestCase
{
    private const FROM = '2026-09-01';

    private const TO = '2026-09-28';

    protected function setUp(): void
    {
        parent::setUp();
        $this->client->update(['currency' => 'EUR', 'time_zone' => 'UTC']);
        mt_srand(41);
        $site = $this->client->collectors()->create(['site' => 'Shop', 'hosts' => ['shop.example']]);
        $sessions = $shares = [];
        for ($id = 1; $id <= 300; $id++) {
            $day = sprintf('2026-%02d-%02d', mt_rand(8, 9), mt_rand(1, 28));
            $sessions[] = [
                'id' => $id,
                'client_id' => $this->client->id,
                'collector_id' => $site->id,
                'begin' => "{$day} 10:00:00",
                'end' => "{$day} 10:05:00",
                'day' => $day,
                'views' => mt_rand(1, 4),
                'is_new' => mt_rand(0, 1),
                'is_tracked' => 1,
                'how' => 'keys',
                'channel' => ['Mail', 'Paid', 'paid', ''][mt_rand(0, 3)],
                'source' => 'source-'.mt_rand(1, 12),
            ];
            if (mt_rand(0, 3) === 0) {
                $value = mt_rand(100, 9000);
                $shares[] = [
                    'conversion_id' => $id,
                    'n' => 0,
                    'client_id' => $this->client->id,
                    'day' => $day,
                    'session_id' => $id,
                    'part' => 1_000_000,
                    'value' => $value,
                    'net' => intdiv($value, mt_rand(1, 3)),
                    'currency' => ['EUR', 'JPY'][mt_rand(0, 1)],
                ];
            }
        }
        DB::table('site_sessions')->insert($sessions);
        DB::table('shares')->insert($shares);
        DB::statement(
            'insert into result_days select distinct client_id, day, 1 from site_sessions where client_id = ?',
            [$this->client->id],
        );
    }

    /**
     * @param array<string, mixed> $more
     * @return array<string, mixed>
     */
    private function ask(array $more): array
    {
        return $this->api(
            'POST',
            '/results',
            $more + ['by' => ['source'], 'from' => self::FROM, 'to' => self::TO, 'limit' => 1000],
        )->assertOk()->json();
    }

    /** @return iterable<string, array{string, \Closure(array<string, mixed>): (float|int)}> */
    public static function orders(): iterable
    {
        foreach (['sessions', 'views', 'newVisitors', 'onePage', 'conversions'] as $count) {
            yield $count => [$count, static fn (array $now): float|int => $now[$count]];
        }
        foreach (['revenue', 'net'] as $money) {
            yield $money => [$money, static fn (array $now): int => $now[$money]['EUR'] ?? 0];
        }
        yield 'conversion' => ['conversion', static fn (array $now): float => $now['conversions'] / $now['sessions']];
        yield 'viewsEach' => ['viewsEach', static fn (array $now): float => $now['views'] / $now['sessions']];
    }

    /** @param \Closure(array<string, mixed>): (float|int) $weight */
    #[DataProvider('orders')]
    public function test_lines_come_by_what_is_asked_and_those_with_as_much_by_their_names(
        string $order,
        \Closure $weight,
    ): void {
        $lines = $this->ask(['order' => 'name', 'up' => true])['lines'];
        self::assertCount(12, $lines);
        foreach ([false, true] as $up) {
            $wanted = $lines;
            usort(
                $wanted,
                static fn (array $a, array $b): int => ($weight($a['now']) <=> $weight($b['now'])) * ($up ? 1 : -1)
                    ?: strcmp($a['by'][0], $b['by'][0]),
            );
            self::assertSame(
                array_column($wanted, 'by'),
                array_column($this->ask(['order' => $order, 'up' => $up])['lines'], 'by'),
            );
        }
    }

    public function test_names_are_in_the_order_of_people_and_days_in_that_of_time(): void
    {
        $names = static fn (array $told): array => array_map(
            static fn (array $line): string => $line['by'][0],
            $told['lines'],
        );
        $wanted = array_map(static fn (int $n): string => "source-{$n}", range(1, 12)); // 2 before 10
        self::assertSame($wanted, $names($this->ask(['order' => 'name', 'up' => true])));
        self::assertSame(array_reverse($wanted), $names($this->ask(['order' => 'name', 'up' => false])));

        $days = $names($this->ask(['by' => ['day'], 'order' => 'views', 'up' => true]));
        $sorted = $days;
        sort($sorted);
        self::assertSame($sorted, $days);
        self::assertGreaterThan(20, count($days));
    }

    public function test_what_is_not_shown_is_added_up_and_all_of_it_is_the_total(): void
    {
        $all = $this->ask([]);
        $some = $this->ask(['limit' => 5]);

        self::assertNull($all['others']);
        self::assertSame(array_slice($all['lines'], 0, 5), $some['lines']);
        self::assertSame(7, $some['others']['lines']);
        self::assertSame($all['total'], $some['total']);
        foreach (['sessions', 'views', 'newVisitors', 'onePage', 'conversions'] as $count) {
            self::assertEquals(
                $all['total']['now'][$count],
                array_sum(array_column(array_column($some['lines'], 'now'), $count)) + $some['others']['now'][$count],
            );
        }
        self::assertEquals(
            self::byCurrency(DB::table('shares as c')->selectRaw('currency, sum(value) sum')),
            $some['total']['now']['revenue'],
        );
    }

    /** @return iterable<string, array{string}> */
    public static function measures(): iterable
    {
        foreach (['sessions', 'views', 'newVisitors', 'onePage', 'conversions', 'revenue', 'net', 'clicks'] as $order) {
            yield $order => [$order];
        }
    }

    /** Very many lines are not read one by one: the database tells the largest, or that only all of them tell. */
    #[DataProvider('measures')]
    public function test_the_largest_of_very_many_are_those_that_all_of_them_tell(string $order): void
    {
        $this->veryMany();
        $ask = fn (int $most): array => $this->ask(['order' => $order, 'limit' => $most]);
        $all = array_values(
            app(Sums::class)->of(
                $this->client->fresh(),
                new Question([By::of(Dimension::Source)], self::FROM, self::TO),
            ),
        );
        $weight = static fn (Line $l): int => is_int($l->{$order}) ? $l->{$order} : $l->{$order}['EUR'] ?? 0;
        usort(
            $all,
            static fn (Line $a, Line $b): int => $weight($b) <=> $weight($a)
                ?: strcmp($a->by['source'], $b->by['source']),
        );
        self::assertGreaterThan(2000, count($all));

        foreach ([3, 40, 700] as $most) {
            $told = $ask($most);
            self::assertSame(
                array_map(static fn (Line $l): array => [$l->by['source']], array_slice($all, 0, $most)),
                array_column($told['lines'], 'by'),
            );
            $rest = array_slice($all, $most);
            self::assertSame(count($rest), $told['others']['lines']);
            self::assertSame(array_sum(array_column($rest, 'sessions')), $told['others']['now']['sessions']);
            self::assertSame(array_sum(array_column($rest, 'views')), $told['others']['now']['views']);
            self::assertSame(
                array_sum(array_map(static fn (Line $l): int => $l->revenue['JPY'] ?? 0, $rest)),
                $told['others']['now']['revenue']['JPY'],
            );
        }
    }

    /** Of 2,500 sources: some have more than others, very many as much as each other. */
    private function veryMany(): void
    {
        DB::statement(
            "insert into site_sessions (id, client_id, collector_id, begin, end, day, views, is_new, is_tracked, how,
                channel, source)
            select 1000 + seq, client_id, collector_id, begin, end, date('2026-09-01') + interval seq % 28 day,
                1 + seq % 3, seq % 2, 1, how, channel,
                concat('many-', if(seq % 3 = 0, seq % 2500, floor(sqrt(seq) * 20)))
            from (
                select row_number() over (order by a.id, b.id) seq from site_sessions a join site_sessions b
                where b.id <= 30
            ) many join (select * from site_sessions where id = 1) s",
        );
        DB::statement(
            "insert into shares (conversion_id, n, client_id, day, session_id, part, value, net, currency)
            select id, 0, client_id, day, id, 1000000, 100 + id % 900, id % 700, if(id % 4 = 0, 'JPY', 'EUR')
            from site_sessions where id % 5 = 0 and id > 1000",
        );
        DB::statement('insert ignore into result_days select distinct client_id, day, 1 from site_sessions');
    }

    public function test_beside_other_days_lines_that_only_those_have_are_told_too(): void
    {
        DB::table('site_sessions')->where('day', '<', self::FROM)->where('source', 'source-3')->update([
            'source' => 'gone since',
        ]);
        $told = $this->ask(['beside' => 'before', 'order' => 'sessions']);
        $gone = collect($told['lines'])->firstOrFail(static fn (array $l): bool => $l['by'] === ['gone since']);

        self::assertSame(0, $gone['now']['sessions']);
        self::assertSame(
            DB::table('site_sessions')->where('source', 'gone since')->whereBetween('day', ['2026-08-04', '2026-08-31'])
                ->count(),
            $gone['before']['sessions'],
        );
        self::assertSame(['gone since'], end($told['lines'])['by']);
        self::assertSame(
            DB::table('site_sessions')->whereBetween('day', ['2026-08-04', '2026-08-31'])->count(),
            $told['total']['before']['sessions'],
        );
    }

    public function test_money_of_one_currency_is_never_added_to_another_nor_to_sessions(): void
    {
        $channels = $this->ask(['by' => ['channel'], 'order' => 'name', 'up' => true])['lines'];
        self::assertEqualsCanonicalizing([[''], ['Mail'], ['Paid'], ['paid']], array_column($channels, 'by'));
        foreach ($channels as $line) {
            self::assertEquals(
                self::byCurrency(
                    DB::table('shares as c')
                        ->join('site_sessions as s', 's.id', 'c.session_id')
                        ->where('s.channel', $line['by'][0])
                        ->selectRaw('c.currency, sum(c.net) sum'),
                ),
                $line['now']['net'],
            );
        }
    }

    /** @return array<string, int> */
    private static function byCurrency(Builder $shares): array
    {
        return $shares
            ->whereBetween('c.day', [self::FROM, self::TO])
            ->groupBy('c.currency')
            ->pluck('sum', 'currency')
            ->map(static fn (mixed $sum): int => (int) $sum)
            ->all();
    }
}
