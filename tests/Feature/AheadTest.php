<?php

namespace Tests\Feature;

use App\Results\AddingUp;
use App\Results\By;
use App\Results\Dimension;
use App\Results\Question;
use App\Results\Rollups;
use App\Results\RollupSet;
use App\Results\Spans;
use App\Results\Sums;
use App\Results\Variety;
use App\Watching\PlanKeys;
use Carbon\CarbonImmutable;
use Carbon\CarbonInterface;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** Of a client that has much, what may be asked for is added up before somebody asks, if that comes to few lines. */
final class AheadTest extends TestCase
{
    private const SESSIONS = 80;

    private string $yesterday;

    private Rollups $rollups;

    protected function setUp(): void
    {
        parent::setUp();
        $this->yesterday = now()->subDay()->toDateString();
        $this->rollups = new Rollups(app(AddingUp::class), app(PlanKeys::class), large: self::SESSIONS - 1);
        $this->come(0, self::SESSIONS);
    }

    /** Two channels, each with its source; on three devices; each session begins on a page of its own. */
    private function come(int $from, int $many): void
    {
        $collector = $this->client->collectors()->firstOrCreate(['site' => 'Shop'], ['hosts' => ['shop.example']]);
        DB::table('site_sessions')->insert(
            array_map(
                fn (int $i): array => [
                    'id' => $i + 1,
                    'client_id' => $this->client->id,
                    'collector_id' => $collector->id,
                    'begin' => "{$this->yesterday} 10:00:00",
                    'end' => "{$this->yesterday} 10:05:00",
                    'day' => $this->yesterday,
                    'views' => 1 + $i % 2,
                    'is_tracked' => 1,
                    'how' => 'keys',
                    'channel' => ['Mail', 'Paid'][$i % 2],
                    'source' => ['letter', 'quay'][$i % 2],
                    'device' => ['phone', 'computer', 'tablet'][$i % 3],
                    'landing' => "https://shop.example/{$i}",
                ],
                range($from, $from + $many - 1),
            ),
        );
        DB::statement(
            'insert into result_days values (?, ?, 1) on duplicate key update version = version + 1',
            [$this->client->id, $this->yesterday],
        );
    }

    /** @return array<string, int> dimensions of a set that is kept → its sessions */
    private function kept(): array
    {
        return DB::table('rollup_sets as s')
            ->leftJoin('rollups as r', 'r.set_id', 's.id')
            ->where('s.client_id', $this->client->id)
            ->groupBy('s.dimensions')
            ->selectRaw('s.dimensions, sum(r.sessions) sessions')
            ->pluck('sessions', 'dimensions')
            ->map(static fn (mixed $sum): int => (int) $sum)
            ->all();
    }

    public function test_all_pairs_that_come_to_few_lines_are_added_up_and_are_what_the_records_say(): void
    {
        $this->rollups->ahead($this->client);

        $kept = $this->kept();
        foreach (['', 'campaigns', 'ads', 'device', 'device,visitor', 'campaigns,device', 'ads,link'] as $few) {
            self::assertSame(self::SESSIONS, $kept[$few] ?? null, $few);
        }
        self::assertSame([], preg_grep('/landing/', array_keys($kept)));
        // beside nothing, campaigns, groups, ads: each of term, keyword, placement, device, visitor, link, site, item;
        // and any two of them
        self::assertCount(4 * (1 + 8) + 8 * 7 / 2, $kept);

        foreach ([['channel', 'device'], ['source', 'campaign', 'visitor'], ['ad', 'source'], ['device']] as $asked) {
            $question = $this->question($asked);
            $this->assertAsRecordsSay($question);
            $lines = app(Sums::class)->of($this->client, $question);
            self::assertSame(self::SESSIONS + intdiv(self::SESSIONS, 2), array_sum(array_column($lines, 'views')));
        }
    }

    public function test_long_periods_are_read_out_of_spans_that_are_as_their_days_are(): void
    {
        DB::table('site_sessions')->update(['day' => DB::raw("'{$this->yesterday}' - interval id % 80 day")]);
        DB::statement(
            'insert ignore into result_days select distinct client_id, day, 1 from site_sessions where client_id = ?',
            [$this->client->id],
        );
        foreach ([['channel', 'device'], ['device']] as $asked) {
            $this->assertAsRecordsSay($this->question($asked, now()->subDays(85)));
        }
        $this->rollups->ahead($this->client);
        $set = (int) DB::table('rollup_sets')->where('dimensions', 'campaigns,device')->value('id');
        $read = [];
        foreach ([0, 6, 13, 20, 27, 34, 53, 70] as $ago) {
            foreach ([3, 9, 30, 45, 80] as $days) {
                $to = now()->subDays($ago);
                $question = $this->question(['channel', 'device'], $to->copy()->subDays($days), $to);
                $spans = Spans::of($set, $question);
                $this->assertEachDayOnce($question, $spans);
                $this->assertAsRecordsSay($question);
                $read += $spans;
            }
        }
        ksort($read);
        self::assertSame([0, 1, 4], array_keys($read));

        // what is told by weeks is read by weeks, by days or months by days
        foreach (['week' => [0, 1], 'month' => [0], 'day' => [0]] as $time => $wanted) {
            $question = $this->question([$time, 'device'], now()->subDays(79), now());
            $spans = Spans::of((int) DB::table('rollup_sets')->where('dimensions', 'device')->value('id'), $question);
            ksort($spans);
            self::assertSame($wanted, array_keys($spans));
            $this->assertAsRecordsSay($question);
        }

        // a day that has changed is not read out of a span that has been added up before
        $question = $this->question(['channel', 'device'], now()->subDays(79), now());
        $day = now()->subDays(40)->toDateString();
        DB::table('site_sessions')->where('day', $day)->update(['views' => 7]);
        DB::table('result_days')->where('day', $day)->increment('version');
        $this->assertAsRecordsSay($question);
        $this->rollups->ahead($this->client);
        $this->assertAsRecordsSay($question);
        self::assertArrayHasKey(4, Spans::of($set, $question));
    }

    /** @param array<int, list<string>> $spans weeks (0: days) → first days */
    private function assertEachDayOnce(Question $question, array $spans): void
    {
        $days = [];
        foreach ($spans as $weeks => $all) {
            foreach ($all as $first) {
                self::assertTrue($weeks === 0 || CarbonImmutable::parse($first)->isMonday());
                for ($n = 0; $n < max(1, 7 * $weeks); $n++) {
                    $days[] = CarbonImmutable::parse($first)->addDays($n)->toDateString();
                }
            }
        }
        sort($days);
        $wanted = [];
        for ($day = $question->from; $day <= $question->to; $day = date('Y-m-d', strtotime("{$day} +1 day"))) {
            $wanted[] = $day;
        }
        self::assertSame($wanted, $days);
    }

    private function assertAsRecordsSay(Question $question): void
    {
        $lines = app(Sums::class)->of($this->client, $question);
        $records = app(Sums::class)->ofRecords($this->client, $question);
        ksort($lines);
        ksort($records);
        self::assertEquals($records, $lines);
    }

    public function test_what_comes_later_is_added_to_all_of_them(): void
    {
        $this->rollups->ahead($this->client);
        $this->come(self::SESSIONS, 7);
        $this->rollups->ahead($this->client);

        self::assertSame([self::SESSIONS + 7], array_values(array_unique($this->kept())));
    }

    public function test_what_comes_to_many_lines_is_kept_once_somebody_asks(): void
    {
        app(Sums::class)->of($this->client, $this->question(['landing', 'channel']));
        self::assertSame(['campaigns,landing' => self::SESSIONS], $this->kept());

        $this->come(self::SESSIONS, 3);
        $this->rollups->ahead($this->client);
        self::assertSame(self::SESSIONS + 3, $this->kept()['campaigns,landing']);
    }

    public function test_keys_of_the_plan_are_ahead_unless_each_session_says_something_else(): void
    {
        $key = fn (string $name): int => DB::table('plan_keys')->insertGetId(
            ['client_id' => $this->client->id, 'name' => $name],
        );
        [$market, $click] = [$key('market'), $key('click')];
        DB::table('site_sessions')->update([
            'others' => DB::raw("json_object('{$market}', elt(1 + id % 2, 'no', 'se'), '{$click}', id)"),
        ]);
        $this->rollups->ahead($this->client);

        $kept = $this->kept();
        foreach (['', 'campaigns,', 'groups,', 'ads,'] as $beside) {
            self::assertSame(self::SESSIONS, $kept["{$beside}key.{$market}"] ?? null);
            self::assertArrayNotHasKey("{$beside}key.{$click}", $kept);
        }
    }

    public function test_of_a_client_that_has_little_nothing_is_added_up_that_nobody_asks_for(): void
    {
        (new Rollups(app(AddingUp::class), app(PlanKeys::class), large: self::SESSIONS))->ahead($this->client);

        self::assertSame([], $this->kept());
    }

    public function test_a_day_tells_how_many_values_and_lines_there_are(): void
    {
        $variety = Variety::of($this->client, [By::key(4)]);
        $set = static fn (Dimension ...$all): RollupSet => RollupSet::of(array_map(By::of(...), $all));

        self::assertSame(0, $variety->most($set()));
        self::assertSame(3, $variety->most($set(Dimension::Channel, Dimension::Device)));
        self::assertSame(self::SESSIONS, $variety->most($set(Dimension::Landing, Dimension::Device)));
        self::assertSame(1, $variety->most(RollupSet::of([By::key(4)]))); // nobody says anything by it
        self::assertTrue($variety->comesToFewLines($set(Dimension::Channel, Dimension::Device)));
        self::assertFalse($variety->comesToFewLines($set(Dimension::Channel, Dimension::Landing)));
        self::assertFalse($variety->comesToFewLines($set(Dimension::Landing)));
    }

    /** @return iterable<string, array{list<Dimension>, string}> */
    public static function sets(): iterable
    {
        yield 'nothing' => [[], ''];
        yield 'what campaigns are told by' => [[Dimension::Source, Dimension::AdCampaign], 'campaigns'];
        yield 'what groups are told by' => [[Dimension::Channel, Dimension::AdGroup], 'groups'];
        yield 'what ads are told by' => [[Dimension::Content, Dimension::AdGroup], 'ads'];
        yield 'beside it' => [[Dimension::Visitor, Dimension::Source, Dimension::Device], 'campaigns,device,visitor'];
        yield 'beside nothing' => [[Dimension::Term, Dimension::Landing], 'landing,term'];
    }

    /** @param list<Dimension> $asked */
    #[DataProvider('sets')]
    public function test_the_least_set_that_answers_is_found_by_what_is_asked(array $asked, string $name): void
    {
        $set = RollupSet::of(array_map(By::of(...), $asked));

        self::assertSame($name, $set->name());
        self::assertEquals($set, RollupSet::named($name));
        self::assertSame($asked, array_values(array_filter(
            $asked,
            static fn (Dimension $d): bool => in_array($d->value, array_map(
                static fn (By $by): string => $by->column(),
                $set->columns(),
            ), true),
        )));
        self::assertTrue($set->isKept());
        $beside = array_filter(Dimension::cases(), static fn (Dimension $d): bool => ! $d->isOfAds() && ! $d->isTime());
        self::assertFalse(RollupSet::of(array_map(By::of(...), $beside))->isKept());
    }

    /** @param list<string> $asked */
    private function question(array $asked, ?CarbonInterface $from = null, ?CarbonInterface $to = null): Question
    {
        return new Question(
            array_map(static fn (string $d): By => By::of(Dimension::from($d)), $asked),
            ($from ?? now()->subDays(10))->toDateString(),
            ($to ?? now())->toDateString(),
        );
    }
}
