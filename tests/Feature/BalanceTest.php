<?php

namespace Tests\Feature;

use App\Jobs\ProveAccount;
use App\Models\Node;
use App\Watching\FormerReaches;
use App\Watching\Sharing;
use App\Watching\WantedLines;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\TestWith;
use Tests\TestCase;

/** Where clicks have gone, against a small world that knows why each did or did not arrive. */
final class BalanceTest extends TestCase
{
    /** @return array<string, int> what became of an account's clicks, as its world knows */
    private function fates(string $platform, string $account): array
    {
        $all = $this->standins('/fates')['items'];

        return array_column(
            array_filter(
                $all,
                static fn (array $f): bool => $f['platform'] === $platform && $f['account'] === $account,
            ),
            'n',
            'fate',
        );
    }

    private function lived(int $seed): void
    {
        $this->client->collectors()->create(['site' => 'velmar', 'credentials' => 'tally-4410']);
        $this->standins('/people', ['days' => 12, 'seed' => $seed]);
        $this->artisan('arrivals:read', ['--all' => true])->assertSuccessful();
        $this->artisan('figures:read')->assertSuccessful();
    }

    /** @return array<string, mixed> */
    private function balance(string $more, string $what = ''): array
    {
        $from = now()->subDays(12)->toDateString();
        $to = now()->toDateString();

        return $this->api('GET', "/balance{$what}?from={$from}&to={$to}&{$more}")
            ->assertOk()
            ->json();
    }

    #[TestWith([1])]
    #[TestWith([2])]
    #[TestWith([3])]
    public function test_at_least_98_of_100_clicks_are_in_the_right_part(int $seed): void
    {
        $this->planned();
        $account = $this->imported();
        $this->lived($seed);
        $true = $this->fates('northquay', $account->external_id);
        $clicks = array_sum($true);
        $told = $this->balance("by=account&account={$account->id}");
        $all = $told['total'];
        self::assertSame($clicks, $all['clicks']);
        self::assertGreaterThan(1000, $clicks);
        $landed = $all['arrived'] + array_sum($all['elsewhere']) + $all['empty'] + $all['raw'];
        $wrong = abs($landed - $true['arrived']) + abs($all['rest'] - ($clicks - $true['arrived']));
        self::assertLessThan(0.02 * $clicks, $wrong / 2, json_encode([$true, $all]));
        self::assertSame($clicks, $landed + $all['broken'] + $all['untracked'] + $all['rest']);
        self::assertSame([$all['clicks']], array_column($told['lines'], 'clicks'));

        $campaigns = $this->balance("by=campaign&account={$account->id}");
        self::assertSame($clicks, array_sum(array_column($campaigns['lines'], 'clicks')));
        $one = $campaigns['lines'][0];
        $ads = $this->balance("by=ad&campaign={$one['key']}");
        self::assertSame($one['clicks'], array_sum(array_column($ads['lines'], 'clicks')));
        foreach ([...$campaigns['lines'], ...$ads['lines']] as $line) {
            $sum =
                $line['arrived'] +
                array_sum($line['elsewhere']) +
                $line['empty'] +
                $line['raw'] +
                $line['broken'] +
                $line['untracked'] +
                (int) $line['withheld'] +
                $line['rest'];
            self::assertSame($line['clicks'], $sum - (int) $line['surplus'], $line['name']);
        }
        $claims = $this->balance("by=campaign&account={$account->id}", '/claims');
        self::assertNotEmpty($claims['lines']);
        foreach ([$claims['total'], ...$claims['lines']] as $line) {
            foreach (['conversions', 'revenue'] as $of) {
                ['elsewhere' => $elsewhere, 'claimed' => $claimed, 'surplus' => $surplus] = $line[$of];
                $parts = array_diff_key($line[$of], array_flip(['elsewhere', 'claimed', 'surplus']));
                self::assertSame($claimed, array_sum($parts) + array_sum($elsewhere) - (int) $surplus);
            }
        }
        self::assertGreaterThan(0, $claims['total']['conversions']['counted']);
        // people who did not consent are counted for the whole site, whatever they clicked
        $whole = $this->balance('by=platform')['total'];
        self::assertSame(
            (int) DB::table('withheld')->sum('n'),
            min($whole['withheld'], (int) DB::table('withheld')->sum('n')),
        );
        self::assertGreaterThan(0, $whole['withheld']);
    }

    #[TestWith([5])]
    #[TestWith([6])]
    #[TestWith([7])]
    public function test_what_a_tracker_sent_on_and_did_not_land_is_lost_there(int $seed): void
    {
        $this->planned();
        $account = $this->imported('NQ-2041');
        $this->lived($seed);
        $true = ['landed' => 0, 'lost' => 0];
        foreach ($this->standins('/fates')['items'] as $f) {
            if ($f['tracked'] === 1) {
                $true[$f['fate'] === 'arrived' ? 'landed' : 'lost'] += $f['n'];
            }
        }
        self::assertGreaterThan(100, $true['landed']);
        foreach (['by=account&account='.$account->id, 'by=platform'] as $asked) {
            $told = $this->balance($asked);
            foreach ([$told['total'], $told['lines'][0]] as $line) {
                self::assertLessThan(
                    0.02 * array_sum($true),
                    abs($line['tracker'] - $true['lost']),
                    json_encode([$true, $line]),
                );
            }
        }
        // whose ads of an account it was is not known
        self::assertNull($this->balance("by=campaign&account={$account->id}")['lines'][0]['tracker']);
    }

    public function test_a_tracker_s_counts_come_as_a_sheet_and_said_again_the_last_count(): void
    {
        $tracker = $this->client->trackers()->firstOrFail();
        $put = fn (string $csv): \Illuminate\Testing\TestResponse => $this->api(
            'PUT',
            "/trackers/{$tracker->id}/counts",
            ['name' => 'hops.csv', 'content' => base64_encode($csv)],
        );
        $put("Report\nDate;Link;Clicks\n01.11.2026;a;1.000\n01.11.2026;b;5\n2.11.2026;a;x\nsoon;a;3\n")
            ->assertOk()
            ->assertExactJson(['days' => 1, 'leftOut' => ['no-count' => 1, 'no-day' => 1]]);
        self::assertSame(1005, DB::table('hop_counts')->value('clicks'));
        $put("Date,Clicks\n2026-11-01,7\n2026-11-03,\"1,200\"\n")->assertJsonPath('days', 2);
        self::assertSame(
            ['2026-11-01' => 7, '2026-11-03' => 1200],
            DB::table('hop_counts')->orderBy('day')->pluck('clicks', 'day')->all(),
        );
        $shown = $this->api('GET', '/trackers')->json('items');
        self::assertSame(['days' => 2, 'until' => '2026-11-03'], $shown[0]['counts']);
        $put("Name,Score\na,1\n")->assertStatus(422)->assertJsonPath(
            'message',
            static fn (string $m): bool => str_contains($m, 'Call the columns “Date” and “Clicks”'),
        );
    }

    public function test_of_ads_that_carry_neither_click_id_nor_number_nothing_is_known(): void
    {
        $account = $this->imported('MF-7', 'mossfeed', 'moss-9047');
        $this->lived(4);
        $all = $this->balance("by=account&account={$account->id}")['total'];
        $clicks = array_sum($this->fates('mossfeed', 'MF-7'));
        self::assertSame(
            [$clicks, $clicks, 0, 0],
            [$all['clicks'], $all['untracked'], $all['rest'], $all['arrived']],
        );
    }

    public function test_what_arrives_as_a_token_or_with_nothing_is_a_step_of_its_own_and_once_more_is_no_click(): void
    {
        $this->planned();
        $account = $this->imported();
        $ad = Node::query()->where('is_ad', true)->firstOrFail();
        $site = $this->client->collectors()->create(['site' => 's', 'hosts' => ['velmar.localhost']]);
        $day = now()->toDateString();
        DB::table('figures')->insert([
            'client_id' => $this->client->id,
            'account_id' => $account->id,
            'node_id' => $ad->id,
            'day' => $day,
            'impressions' => 100,
            'clicks' => 10,
            'cost' => 500,
            'currency' => 'EUR',
            'conversions' => 0,
            'value' => 0,
        ]);
        DB::table('wanted_lines')->insert([
            'node_id' => $ad->id,
            'client_id' => $this->client->id,
            'platform' => 'northquay-search',
            'channel' => 'Paid search',
        ]);
        $ways = [
            ['keys', 'northquay', 'cpc', 'orrin', 'Paid search', 'c1'],
            ['keys', 'northquay', 'cpc', 'orrin', 'Paid search', 'c1'],
            ['keys', 'northquay', 'cpc', '{campaign.id}', 'Paid search', 'c2'],
            ['keys', 'northquay', 'cpc', '{campaign.size}', 'Paid search', 'c3'],
            ['click-id', 'northquay-search', 'click-id', '', 'Paid search', 'c4'],
            ['keys', 'letter', 'email', 'x', 'E-mail', 'c5'],
        ];
        foreach ($ways as $i => [$how, $source, $medium, $campaign, $channel, $click]) {
            DB::table('site_sessions')->insert([
                'id' => $i + 1,
                'client_id' => $this->client->id,
                'collector_id' => $site->id,
                'begin' => "{$day} 09:0{$i}:00",
                'end' => "{$day} 09:0{$i}:00",
                'day' => $day,
                'views' => 1,
                'is_tracked' => true,
                'how' => $how,
                'channel' => $channel,
                'source' => $source,
                'medium' => $medium,
                'campaign' => $campaign,
                'click_id' => $click,
                'account_id' => $account->id,
                'node_id' => $ad->id,
            ]);
        }
        $all = $this->balance("by=ad&account={$account->id}")['lines'][0];
        self::assertSame(
            [10, 2, ['E-mail' => 1], 1, 1, 1, 5, true],
            [
                $all['clicks'],
                $all['arrived'], // {campaign.size} is no token of the platform
                $all['elsewhere'],
                $all['empty'],
                $all['raw'],
                $all['repeats'],
                $all['rest'],
                $all['marked'],
            ],
        );
    }

    public function test_what_was_lost_on_a_day_is_told_by_what_the_ad_said_on_that_day(): void
    {
        $this->planned();
        $account = $this->imported();
        $ad = Node::query()->where(['is_ad' => true, 'state' => 'broken'])->orderBy('id')->firstOrFail();
        foreach ([1, 2, 5] as $ago) {
            DB::table('figures')->insert([
                'client_id' => $this->client->id,
                'account_id' => $account->id,
                'node_id' => $ad->id,
                'day' => now()->subDays($ago)->toDateString(),
                'impressions' => 100,
                'clicks' => 10,
                'cost' => 500,
                'currency' => 'EUR',
                'conversions' => 0,
                'value' => 0,
            ]);
        }
        app(WantedLines::class)->know($account, [$ad->id]);
        $lost = fn (int $from, int $to): array => array_intersect_key(
            $this->api('GET', '/balance?by=ad&account='.$account->id
                .'&from='.now()->subDays($from)->toDateString().'&to='.now()->subDays($to)->toDateString())
                ->assertOk()
                ->json('lines')[0],
            ['broken' => 0, 'untracked' => 0, 'rest' => 0],
        );
        // three days ago it was made so that it leads nowhere, and mended since yesterday
        $said = fn (string $reach) => DB::table('wanted_lines')->where('node_id', $ad->id)->update(['reach' => $reach]);
        $is = FormerReaches::now([$ad->id]);
        $change = function (string $from, string $to, int $ago) use ($said, $ad): void {
            $said($to);
            FormerReaches::keep([$ad->id => $from], now()->subDays($ago)->toDateString());
        };
        $said('ok');
        $change('ok', 'broken', 3);
        $change('broken', 'untracked', 1);
        $change('untracked', 'ok', 1); // within a day: it was never a day's
        self::assertSame(['broken' => 0, 'untracked' => 0, 'rest' => 10], $lost(5, 5));
        self::assertSame(['broken' => 10, 'untracked' => 0, 'rest' => 0], $lost(2, 2));
        self::assertSame(['broken' => 0, 'untracked' => 0, 'rest' => 10], $lost(1, 1));
        self::assertSame(['broken' => 10, 'untracked' => 0, 'rest' => 20], $lost(6, 0));

        // texts that change are noted by themselves
        DB::table('former_reaches')->delete();
        $said($is[$ad->id] === 'broken' ? 'ok' : 'broken');
        ProveAccount::dispatchSync($account->id);
        self::assertSame(
            [['since' => '1000-01-01', 'until' => now()->subDay()->toDateString()]],
            DB::table('former_reaches')
                ->get(['since', 'until'])
                ->map(static fn (object $r): array => (array) $r)
                ->all(),
        );
    }

    /** Ten claims of one ad, and a way for each part: each is worked out by hand. */
    public function test_claims_are_laid_beside_what_counts_here(): void
    {
        $this->planned();
        $account = $this->imported();
        [$ad, $other] = Node::query()->where('is_ad', true)->limit(2)->get()->all();
        $this->client->update(['watching' => ['attribution' => ['model' => 'last', 'days' => 7]]]);
        $site = $this->client->collectors()->create(['site' => 's', 'hosts' => ['velmar.localhost']])->id;
        $this->said($account->id, $ad->id, 10, 100_000);
        $this->said($account->id, $other->id, 1, 5000);
        // came by the ad; by something else after it; longer ago than counts here; ordered twice; brought back whole,
        // and in part; of the other ad alone; longer ago than platforms claim
        $this->came($site, 'a', 3, $ad);
        $this->bought($site, 'a', 2, 'A', 1000);
        $this->came($site, 'b', 3, $ad);
        $this->came($site, 'b', 2, null, 'E-mail');
        $this->bought($site, 'b', 1, 'B', 2000);
        $this->came($site, 'c', 9, $ad);
        $this->bought($site, 'c', 1, 'C', 3000);
        $this->came($site, 'd', 3, $ad);
        $this->bought($site, 'd', 2, 'A', 1000);
        $this->came($site, 'e', 3, $ad);
        $this->bought($site, 'e', 2, 'E', 4000, 4000);
        $this->came($site, 'f', 3, $ad);
        $this->bought($site, 'f', 2, 'F', 5000, 2000);
        $this->came($site, 'g', 3, $other);
        $this->bought($site, 'g', 2, 'G', 6000);
        $this->came($site, 'h', 40, $ad);
        $this->bought($site, 'h', 1, 'H', 7000);
        app(Sharing::class)->ofOrders($this->client->refresh(), $site, ['A', 'B', 'C', 'E', 'F', 'G', 'H']);

        $claims = $this->balance("by=ad&account={$account->id}", '/claims');
        $lines = array_column($claims['lines'], null, 'key');
        self::assertSame(
            ['claimed' => 10, 'counted' => 2, 'elsewhere' => ['E-mail' => 1], 'outside' => 1, 'repeated' => 1,
                'takenBack' => 1, 'surplus' => null, 'unseen' => 4],
            self::whole($lines[$ad->id]['conversions']),
        );
        self::assertEquals(
            ['claimed' => 100_000, 'counted' => 4000, 'elsewhere' => ['E-mail' => 2000], 'outside' => 3000,
                'repeated' => 1000, 'takenBack' => 6000, 'surplus' => null, 'unseen' => 84_000],
            $lines[$ad->id]['revenue'],
        );
        self::assertSame([1, 0], [
            self::whole($lines[$other->id]['conversions'])['counted'],
            self::whole($lines[$other->id]['conversions'])['unseen'],
        ]);
        self::assertSame(1000, $lines[$other->id]['revenue']['surplus'], 'more counts for it than it claims');
        self::assertSame(3, self::whole($claims['total']['conversions'])['counted']);
    }

    /**
     * @param array<string, mixed> $claim in millionths
     * @return array<string, mixed> in conversions
     */
    private static function whole(array $claim): array
    {
        return array_map(
            static fn (mixed $of): mixed => is_array($of)
                ? array_map(static fn (int $n): int => intdiv($n, 1_000_000), $of)
                : ($of === null ? null : intdiv($of, 1_000_000)),
            $claim,
        );
    }

    private function said(int $account, int $ad, int $conversions, int $value): void
    {
        foreach (range(1, 10) as $back) {
            DB::table('figures')->insert([
                'client_id' => $this->client->id,
                'account_id' => $account,
                'node_id' => $ad,
                'day' => now()->subDays($back)->toDateString(),
                'impressions' => 1,
                'clicks' => 1,
                'cost' => 1,
                'currency' => 'EUR',
                'conversions' => $back === 1 ? $conversions : 0,
                'value' => $back === 1 ? $value : 0,
            ]);
        }
        DB::table('wanted_lines')->insertOrIgnore([
            'node_id' => $ad,
            'client_id' => $this->client->id,
            'platform' => 'northquay-search',
            'channel' => 'Paid search',
        ]);
    }

    private function came(int $site, string $visitor, int $daysAgo, ?Node $ad, string $channel = 'Paid search'): void
    {
        $at = now()->subDays($daysAgo)->startOfDay()->addHours(9);
        DB::table('site_sessions')->insert([
            'id' => 1 + (int) DB::table('site_sessions')->max('id'),
            'client_id' => $this->client->id,
            'collector_id' => $site,
            'visitor' => $visitor,
            'begin' => $at,
            'end' => $at,
            'day' => $at->toDateString(),
            'views' => 1,
            'is_tracked' => true,
            'how' => 'keys',
            'channel' => $channel,
            'account_id' => $ad?->account_id,
            'node_id' => $ad?->id,
        ]);
    }

    private function bought(int $site, string $visitor, int $daysAgo, string $order, int $value, int $back = 0): void
    {
        $at = now()->subDays($daysAgo)->startOfDay()->addHours(18);
        $id = 1000 + DB::table('conversions')->count();
        DB::table('conversions')->insert([
            'arrival_id' => $id,
            'client_id' => $this->client->id,
            'collector_id' => $site,
            'at' => $at,
            'visitor' => $visitor,
            'order_number' => $order,
            'value' => $value,
            'currency' => 'EUR',
            'came_at' => $at,
        ]);
        if ($back > 0) {
            DB::table('refunds')->insert([
                'collector_id' => $site,
                'external_id' => $id,
                'order_number' => $order,
                'at' => $at,
                'value' => $back,
            ]);
        }
    }

    public function test_what_is_another_client_s_can_not_be_asked_for(): void
    {
        $account = $this->imported();
        $other = \App\Models\Client::factory()->create();
        $this->actingAs($this->member(\App\Models\Role::Viewer, $other))
            ->getJson(
                "/api/v1/clients/{$other->id}/balance?from=2026-10-01&to=2026-10-02&by=ad&account={$account->id}",
            )
            ->assertStatus(422);
        $this->api('GET', '/balance?from=2026-10-03&to=2026-10-02&by=ad')
            ->assertStatus(422)
            ->assertJsonValidationErrors(['to']);
    }
}
