<?php

namespace Tests\Feature;

use App\Models\Node;
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
    private function balance(string $more): array
    {
        $from = now()->subDays(12)->toDateString();
        $to = now()->toDateString();

        return $this->api('GET', "/balance?from={$from}&to={$to}&{$more}")
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
        // people who did not consent are counted for the whole site, whatever they clicked
        $whole = $this->balance('by=platform')['total'];
        self::assertSame(
            (int) DB::table('withheld')->sum('n'),
            min($whole['withheld'], (int) DB::table('withheld')->sum('n')),
        );
        self::assertGreaterThan(0, $whole['withheld']);
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
