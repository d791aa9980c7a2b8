<?php

namespace Tests\Feature;

use App\Balance\Asked;
use App\Balance\StairDays;
use App\Balance\StairRecords;
use App\Results\ResultDays;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** What became of clicks, added up by day: always what the records say. */
final class StairDaysTest extends TestCase
{
    private StairDays $days;

    private StairRecords $records;

    protected function setUp(): void
    {
        parent::setUp();
        $this->planned();
        $this->imported();
        $this->client->collectors()->create(['site' => 'velmar', 'credentials' => 'tally-4410']);
        $this->standins('/people', ['days' => 9, 'seed' => 5]);
        $this->artisan('arrivals:read', ['--all' => true])->assertSuccessful();
        $this->artisan('figures:read')->assertSuccessful();
        [$this->days, $this->records] = [$this->app->make(StairDays::class), $this->app->make(StairRecords::class)];
    }

    public function test_they_are_what_plain_reading_of_the_records_gives(): void
    {
        $account = (int) DB::table('site_sessions')->whereNotNull('account_id')->value('account_id');
        $campaign = (int) DB::table('site_sessions')->whereNotNull('campaign_id')->value('campaign_id');
        foreach ([[], ['platform'], ['account'], ['campaign'], ['day', 'campaign']] as $by) {
            foreach ([null, ['account', $account], ['campaign', $campaign], ['platform', 'nobody']] as $within) {
                $of = $this->told($this->days, $by, $within);
                self::assertSame($this->told($this->records, $by, $within), $of, json_encode([$by, $within]));
                self::assertSame($within === ['platform', 'nobody'], $of === []);
            }
        }
        self::assertLessThan(DB::table('figures')->count(), DB::table('stair_lines')->count());
    }

    public function test_a_day_that_has_changed_is_added_up_anew_and_the_others_are_not(): void
    {
        $this->told($this->days, [], null);
        $added = DB::table('stair_days')->pluck('version', 'day');
        $session = $this->clicked()->firstWhere('how', 'keys');
        DB::table('site_sessions')->where('id', $session->id)->update(['channel' => 'Nowhere']);
        ResultDays::changed($this->client->id, [$session->day]);
        DB::table('stair_lines')->where('day', '<>', $session->day)->update(['n' => DB::raw('n + 1000000')]);

        $this->days->refresh($this->client, ...$this->period());
        $moved = $added->diffAssoc(DB::table('stair_days')->pluck('version', 'day'));
        self::assertSame([$session->day], $moved->keys()->all());
        $elsewhere = DB::table('stair_lines')->where(['day' => $session->day, 'channel' => 'Nowhere'])->sum('n');
        self::assertSame(1, (int) $elsewhere);
        self::assertGreaterThan(900_000, DB::table('stair_lines')->where('day', '<>', $session->day)->min('n'));
    }

    public function test_who_asks_waits_for_one_day_and_is_told_how_many_are_left(): void
    {
        [$from, $to] = $this->period();
        $all = $this->days->left($this->client, $from, $to);
        self::assertGreaterThan(5, $all);

        $this->days->refresh($this->client, $from, $to, seconds: 0);
        self::assertSame($all - 1, $this->days->left($this->client, $from, $to));

        $this->days->refresh($this->client, $from, $to);
        self::assertSame(0, $this->days->left($this->client, $from, $to));
    }

    public function test_a_day_that_somebody_else_is_adding_up_is_left_to_them(): void
    {
        [$from, $to] = $this->period();
        $this->days->refresh($this->client, $from, $to);
        $day = (string) DB::table('stair_days')->max('day');
        DB::table('stair_days')->update(['doubted' => true]);
        $other = DB::connection('owner');
        $other->beginTransaction();
        $other->table('stair_days')->where(['client_id' => $this->client->id, 'day' => $day])->lockForUpdate()->get();
        try {
            $this->days->refresh($this->client, $from, $to);
            self::assertSame(1, $this->days->left($this->client, $from, $to));
        } finally {
            $other->rollBack();
        }

        $this->days->refresh($this->client, $from, $to);
        self::assertSame(0, $this->days->left($this->client, $from, $to));
    }

    public function test_with_very_many_ads_days_are_added_up_account_by_account(): void
    {
        foreach (array_chunk(range(1, 10_001), 1000) as $some) {
            DB::table('wanted_lines')->insert(
                array_map(
                    fn (int $n): array => [
                        'node_id' => 900_000_000 + $n,
                        'client_id' => $this->client->id,
                        'platform' => 'nobody',
                        'reach' => 'ok',
                        'channel' => '',
                    ],
                    $some,
                ),
            );
        }
        [$from, $to] = $this->period();
        $step = fn () => $this->days->refresh($this->client, $from, $to, 0);
        $days = $this->days->left($this->client, $from, $to);
        $step();
        self::assertSame($days, $this->days->left($this->client, $from, $to), 'a day of which a part is told is left');
        self::assertSame(1, DB::table('stair_days')->where('through', '>', 0)->count());
        $begun = (string) DB::table('stair_days')->where('through', '>', 0)->value('day');
        ResultDays::changed($this->client->id, [$begun]); // what is begun begins anew
        for ($times = 0; $this->days->left($this->client, $from, $to) > 0; $times++) {
            self::assertLessThan(10 * $days * $this->client->accounts()->count(), $times);
            $step();
        }

        foreach ([[], ['account'], ['day', 'campaign']] as $by) {
            self::assertSame($this->told($this->records, $by, null), $this->told($this->days, $by, null));
        }
        self::assertSame(0, DB::table('stair_days')->where('through', '>', 0)->count());
    }

    public function test_an_ad_on_which_more_came_than_was_counted_loses_nothing(): void
    {
        DB::table('wanted_lines')->update(['reach' => 'broken']);
        DB::table('figures')->update(['clicks' => 0]);
        $told = $this->told($this->records, ['platform'], null);

        self::assertNotEmpty($told);
        self::assertStringNotContainsString('broken', implode(' ', array_keys($told)));
    }

    /** Somebody comes again days later by a link that was clicked before: the first is known later than the second. */
    public function test_a_click_that_turns_out_to_have_been_made_before_is_a_repeat(): void
    {
        $sessions = $this->clicked();
        [$early, $late] = [$sessions->first(), $sessions->last()];
        self::assertLessThan($late->day, $early->day);
        $repeats = fn (): int => $this->told($this->days, [], null)['repeats']['n'] ?? 0;
        $before = $repeats();
        DB::table('site_sessions')->where('id', $early->id)->update(['click_id' => $late->click_id]);
        ResultDays::changed($this->client->id, [$early->day]);

        self::assertSame($before + 1, $repeats());
        self::assertSame($this->told($this->records, [], null), $this->told($this->days, [], null));
        self::assertSame(0, DB::table('stair_days')->where('doubted', true)->count());
    }

    /** @return Collection<int, object> sessions that began with the click on a known ad, the first ones first */
    private function clicked(): Collection
    {
        return DB::table('site_sessions')
            ->whereNotNull('node_id')
            ->where('views', '>', 0)
            ->where('click_id', '<>', '')
            ->orderBy('begin')
            ->get();
    }

    /** @return array{string, string} */
    private function period(): array
    {
        return [now()->subDays(9)->toDateString(), now()->toDateString()];
    }

    /**
     * @param list<string> $by
     * @param array{0: string, 1: int|string}|null $within
     * @return array<string, array{n: int, cost: int}> by what it is told by, step, channel and currency
     */
    private function told(StairDays|StairRecords $of, array $by, ?array $within): array
    {
        if ($of instanceof StairDays) {
            $of->refresh($this->client, ...$this->period()); // who asks waits for so long, and no longer
        }
        $told = [];
        foreach ($of->rows(new Asked($this->client, ...$this->period(), by: $by, within: $within)) as $row) {
            $parts = [...array_map(static fn (string $b): string => (string) $row[$b], $by), $row['step']];
            $key = trim(implode(' ', [...$parts, $row['channel'] ?? '', $row['currency'] ?? '']));
            $told[$key] ??= ['n' => 0, 'cost' => 0];
            $told[$key]['n'] += (int) $row['n'];
            $told[$key]['cost'] += (int) ($row['cost'] ?? 0);
        }
        ksort($told);

        return $told;
    }
}
