<?php

namespace Tests\Feature;

use App\Accounts\FormerNames;
use App\Models\Account;
use App\Models\Change;
use App\Models\Client;
use App\Models\Node;
use App\Models\Role;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** Who wrote what, why and when; and what was live on any day. */
final class LedgerTest extends TestCase
{
    private Account $account;

    private Node $ad;

    /** Three days: imported, changed, changed back in part. */
    protected function setUp(): void
    {
        parent::setUp();
        Carbon::setTestNow('2026-11-01 08:00:00');
        $this->account = $this->imported();
        $this->planned();
        $this->ad = Node::query()->where('is_ad', true)->orderBy('position')->firstOrFail();
        Carbon::setTestNow('2026-11-03 12:00:00');
        $this->write('ref=first', 'For the newsletter');
        Carbon::setTestNow('2026-11-05 12:00:00');
        $this->write('ref=second', 'It was the wrong one');
        Carbon::setTestNow('2026-11-09 12:00:00');
    }

    protected function tearDown(): void
    {
        Carbon::setTestNow();
        parent::tearDown();
    }

    private function write(string $suffix, string $reason): void
    {
        $id = $this->api('POST', '/changes', [
            'account' => $this->account->id,
            'title' => $suffix,
            'reason' => $reason,
            'texts' => [['node' => $this->ad->id, 'slot' => 'suffix', 'text' => $suffix]],
        ])->json('id');
        $this->api('POST', "/changes/{$id}/application")->assertStatus(202);
        self::assertSame('done', Change::query()->findOrFail($id)->status->value);
    }

    public function test_what_did_this_ad_send_on_that_day(): void
    {
        $sent = fn (string $day): array => $this->api('GET', "/nodes/{$this->ad->id}/then?at={$day}")
            ->assertOk()
            ->json('arrival');
        self::assertNotContains('ref', array_column($sent('2026-11-02'), 0));
        self::assertContains(['ref', 'first'], $sent('2026-11-04'));
        self::assertContains(['ref', 'second'], $sent('2026-11-06'));

        $text = array_values(
            array_filter(
                $this->api('GET', "/nodes/{$this->ad->id}/then?at=2026-11-04")->json('texts'),
                static fn (array $t): bool => $t['kind'] === 'suffix' && $t['level'] === 'ad',
            ),
        )[0];
        self::assertSame(
            ['ref=first', 'A editor', '2026-11-03T12:00:00+00:00', '2026-11-05T12:00:00+00:00'],
            [$text['text'], $text['by'], $text['since'], $text['until']],
        );
        $this->api('GET', "/nodes/{$this->ad->id}/then?at=yesterday-ish")->assertStatus(422);
    }

    public function test_a_day_of_an_account_says_what_was_sent_what_arrived_and_what_is_otherwise_now(): void
    {
        $site = $this->client->collectors()->create([
            'site' => 'v',
            'hosts' => ['v.example'],
            'key' => str_repeat('k', 24),
        ]);
        foreach (['2026-11-03 10:00:00', '2026-11-03 14:00:00', '2026-11-03 23:30:00'] as $i => $at) {
            DB::table('arrivals')->insert([
                'client_id' => $this->client->id,
                'collector_id' => $site->id,
                'external_id' => $i,
                'at' => $at,
                'url' => 'https://v.example/',
                'source' => 'northquay',
                'medium' => 'cpc',
                'node_id' => $this->ad->id,
            ]);
        }
        $this->client->update(['time_zone' => 'Europe/Lisbon']);
        $page = fn (string $query): TestResponse => $this->api('GET', "/accounts/{$this->account->id}/day?{$query}");
        $of = static fn (TestResponse $day): array => $day->assertOk()->json('items.0');

        $first = $of($page('day=2026-11-03'));
        self::assertSame($this->ad->id, $first['node']);
        $since = ['2026-11-03T00:00:00+00:00', '2026-11-03T12:00:00+00:00'];
        self::assertSame($since, array_column($first['sent'], 'since'));
        $texts = array_map(
            static fn (array $s): string => implode('', array_column($s['ribbon'], 'text')),
            $first['sent'],
        );
        self::assertStringNotContainsString('ref=', $texts[0]);
        self::assertStringContainsString('ref=first', $texts[1]);
        self::assertSame(
            [['values' => ['source' => 'northquay', 'medium' => 'cpc', 'campaign' => ''], 'views' => 3]],
            $first['arrived'],
        );
        self::assertSame([['suffix', 'ref=first', 'ref=second']], array_map(
            static fn (array $d): array => [$d['kind'], $d['before'], $d['after']],
            $first['since'],
        ));
        self::assertSame(1, $page('day=2026-11-03&arrived=1')->json('total'));
        self::assertSame([], $of($page('day=2026-11-07'))['since']);
        self::assertSame([], $of($page('day=2026-11-07'))['arrived']);
        $before = $page('day=2026-10-25'); // clocks are put back in the night before
        self::assertSame([false, 25], [$before->json('isKnown'), $before->json('hours')]);
        self::assertSame([], $before->json('items.0.sent'));
        $page('day=2026-02-30')->assertStatus(422);
    }

    public function test_a_day_speaks_of_ads_by_their_names_of_then(): void
    {
        FormerNames::keep(
            collect([$this->ad->id => (clone $this->ad)->forceFill(['name' => 'Once'])]),
            collect([$this->ad->id => $this->ad]),
            now()->subDays(3),
        );
        $day = fn (string $day): string => $this->api('GET', "/accounts/{$this->account->id}/day?day={$day}")
            ->json('items.0.name');
        self::assertSame(['Once', $this->ad->name], [$day('2026-11-05'), $day('2026-11-08')]);
    }

    public function test_who_wrote_what_why_and_when(): void
    {
        $items = $this->api('GET', "/ledger?node={$this->ad->id}")
            ->assertOk()
            ->json('items');
        self::assertSame(
            [
                ['ref=second', 'ref=first', 'It was the wrong one', '2026-11-05T12:00:00+00:00'],
                ['ref=first', null, 'For the newsletter', '2026-11-03T12:00:00+00:00'],
            ],
            array_map(static fn (array $i): array => [$i['after'], $i['before'], $i['reason'], $i['at']], $items),
        );
        self::assertCount(1, $this->api('GET', '/ledger?from=2026-11-04&to=2026-11-06')->json('items'));
        self::assertCount(1, $this->api('GET', "/ledger?before={$items[0]['id']}")->json('items'));
    }

    public function test_differences_between_any_two_days(): void
    {
        $between = fn (string $from, string $to): array => $this->api(
            'GET',
            "/accounts/{$this->account->id}/differences?from={$from}&to={$to}",
        )
            ->assertOk()
            ->json();
        self::assertSame(
            [
                'total' => 1,
                'from' => '2026-11-02T00:00:00+00:00',
                'items' => [
                    [
                        'node' => $this->ad->id,
                        'name' => $this->ad->name,
                        'level' => 'ad',
                        'kind' => 'suffix',
                        'custom' => '',
                        'before' => null,
                        'after' => 'ref=second',
                    ],
                ],
            ],
            $between('2026-11-02', '2026-11-06'),
        );
        self::assertSame('ref=first', $between('2026-11-04', '2026-11-06')['items'][0]['before']);
        self::assertSame(
            ['total' => 1, 'from' => '2026-11-01T08:00:00+00:00'],
            array_diff_key($between('2026-10-01', '2026-11-06'), ['items' => 1]),
            'nothing is known before the first import',
        );
        self::assertSame(0, $between('2026-11-06', '2026-11-08')['total']);
        self::assertSame(
            ['ref=second', null],
            array_values(
                array_intersect_key($between('2026-11-06', '2026-11-02')['items'][0], [
                    'before' => 1,
                    'after' => 1,
                ]),
            ),
            'backwards too',
        );
    }

    public function test_nobody_reads_the_ledger_of_another_client(): void
    {
        $other = Client::factory()->create(['name' => 'Other']);
        $stranger = $this->member(Role::Owner, $other);
        $this->actingAs($stranger)
            ->getJson("/api/v1/clients/{$other->id}/ledger?node={$this->ad->id}")
            ->assertStatus(422);
        $this->actingAs($stranger)
            ->getJson("/api/v1/clients/{$other->id}/nodes/{$this->ad->id}/then?at=2026-11-04")
            ->assertNotFound();
        $this->actingAs($stranger)
            ->getJson(
                "/api/v1/clients/{$other->id}/accounts/{$this->account->id}/differences?from=2026-11-02&to=2026-11-06",
            )
            ->assertNotFound();
    }
}
