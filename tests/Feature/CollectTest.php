<?php

namespace Tests\Feature;

use App\Models\Arrival;
use App\Models\Collector;
use App\Models\Node;
use App\Models\Role;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;
use Vestigon\Core\Watch\Instant;

/** What pages report themselves. */
final class CollectTest extends TestCase
{
    private Collector $site;

    protected function setUp(): void
    {
        parent::setUp();
        $this->site = $this->client->collectors()->create([
            'site' => 'Shop',
            'hosts' => ['shop.example', '*.stories.example'],
            'key' => str_repeat('a', 24),
        ]);
    }

    /** @param array<string, mixed> $more */
    private static function event(array $more = []): array
    {
        return $more + [
            'id' => 'e'.mt_rand(),
            'site' => 'here',
            'kind' => 'view',
            'at' => now()->toIso8601ZuluString('millisecond'),
            'url' => 'https://www.shop.example/book?utm_source=a&utm_medium=cpc',
        ];
    }

    /** @param list<mixed> $events */
    private function report(
        array $events,
        string $origin = 'https://shop.example',
        ?string $sent = null,
        string $agent = 'Mozilla/5.0 (X11; Linux x86_64) Chrome/146.0 Safari/537.36',
    ): TestResponse {
        return $this->call(
            'POST',
            "/in/{$this->site->key}",
            server: [
                'HTTP_ORIGIN' => $origin,
                'CONTENT_TYPE' => 'text/plain;charset=UTF-8',
                'HTTP_USER_AGENT' => $agent,
            ],
            content: json_encode([
                'sent' => $sent ?? now()->toIso8601ZuluString('millisecond'),
                'events' => $events,
            ]),
        );
    }

    /** @return array<string, int> */
    private function refused(): array
    {
        return DB::table('refusals')->pluck('n', 'why')->map(static fn ($n): int => (int) $n)->all();
    }

    public function test_raw_records_are_kept_as_long_as_their_client_says(): void
    {
        $other = \App\Models\Client::factory()->create();
        $site = ['site' => 'O', 'hosts' => ['shop.example'], 'key' => str_repeat('b', 24)];
        $otherSite = $other->collectors()->create($site);
        $this->report([self::event(), self::event()])->assertJsonPath('taken', 2);
        $this->site = $otherSite;
        $this->report([self::event()])->assertJsonPath('taken', 1);
        $this->artisan('arrivals:read')->assertSuccessful();
        $old = DB::table('arrivals')->groupBy('client_id')->selectRaw('min(id) id')->pluck('id');
        DB::table('arrivals')->whereIn('id', $old)->update(['at' => now()->subDays(50)]);
        $this->client->update(['watching' => ['retention' => 40]]);
        $this->artisan('arrivals:days')->assertOk();

        self::assertSame(
            [$this->client->id => 1, $other->id => 1],
            DB::table('arrivals')
                ->groupBy('client_id')
                ->selectRaw('client_id, count(*) n')
                ->pluck('n', 'client_id')
                ->all(),
        );
        self::assertSame(2, (int) DB::table('site_sessions')->where('client_id', $this->client->id)->count());
        $this->artisan('arrivals:days')->assertOk();
        self::assertSame(2, DB::table('arrivals')->count());
    }

    public function test_what_a_page_reports_arrives_once_and_finds_its_ad(): void
    {
        $this->planned();
        $this->imported();
        $ad = Node::query()->where('is_ad', true)->firstOrFail();
        $event = self::event([
            'url' => "https://shop.example/book?utm_source=a&utm_content={$ad->external_id}",
            'referrer' => 'https://seek.example/',
            'visitor' => 'w1',
        ]);
        $answer = $this->report([$event])
            ->assertStatus(202)
            ->assertJsonPath('taken', 1);
        self::assertSame('https://shop.example', $answer->headers->get('Access-Control-Allow-Origin'));
        $this->report([$event])
            ->assertStatus(202)
            ->assertJsonPath('taken', 0);

        $this->artisan('arrivals:read')->assertSuccessful();
        $items = $this->api('GET', '/arrivals')->json('items');
        self::assertCount(1, $items);
        self::assertSame([$ad->id, 'parameters'], [$items[0]['ad']['id'], $items[0]['matchedBy']]);
        self::assertSame(
            ['w1', 'https://seek.example/'],
            array_values(Arrival::query()->firstOrFail()->only('visitor', 'referrer')),
        );
        self::assertStringNotContainsString('127.0.0.1', (string) json_encode(Arrival::query()->get()));
    }

    public function test_what_names_no_ad_is_looked_for_once(): void
    {
        $this->report([self::event()])->assertStatus(202);
        $this->artisan('arrivals:read');
        self::assertSame('', Arrival::query()->value('matched_by'));
        self::assertNull($this->api('GET', '/arrivals')->json('items.0.matchedBy'));
    }

    public function test_the_way_of_a_visitor_is_told_as_sessions(): void
    {
        $now = now()->getPreciseTimestamp(3);
        $seen = [
            [-90, 'https://shop.example/?utm_source=a&utm_medium=cpc'],
            [-85, 'https://shop.example/ferries'],
            [-10, 'https://shop.example/book'],
            [-5, 'https://shop.example/?utm_source=b&utm_medium=email'],
        ];
        foreach ($seen as [$minutes, $url]) {
            $at = Instant::text($now + $minutes * 60_000);
            $this->report([self::event(['url' => $url, 'at' => $at, 'visitor' => 'w1'])])->assertStatus(202);
        }
        $this->report([self::event(['visitor' => 'w2'])])->assertStatus(202);

        $one = $this->api('GET', '/arrivals')->json('items');
        self::assertSame([true, true, true, true, true], array_column($one, 'isFollowed'));
        $way = $this->api('GET', "/arrivals/{$one[1]['id']}/way")->assertOk();
        self::assertSame([4, false], [$way['views'], $way['more']]);
        self::assertSame(
            [['E-mail', 1], ['Direct', 1], ['Paid search', 2]],
            array_map(static fn (array $s): array => [$s['channel'], count($s['pages'])], $way['sessions']),
        );
    }

    public function test_a_clock_that_is_wrong_by_years_does_not_matter(): void
    {
        $event = self::event(['at' => '2031-01-01T00:00:00.000Z']);
        $this->report([$event], sent: '2031-01-01T00:00:05.000Z')->assertStatus(202);
        $ago = now()->getPreciseTimestamp(3) - Arrival::query()->firstOrFail()->at->getPreciseTimestamp(3);
        self::assertGreaterThanOrEqual(5000, $ago);
        self::assertLessThan(15_000, $ago);
    }

    public function test_what_comes_in_another_order_than_it_was_sent_in_is_put_in_order(): void
    {
        $at = static fn (int $ago): string => now()->subMilliseconds($ago)->toIso8601ZuluString('millisecond');
        [$first, $second] = [$at(900), $at(300)];
        $this->report([self::event(['id' => 'b', 'at' => $second])], sent: $second)->assertStatus(202);
        $this->report([self::event(['id' => 'a', 'at' => $first])], sent: $first)->assertStatus(202);
        self::assertSame(
            [$first, $second],
            Arrival::query()
                ->orderBy('at')
                ->get()
                ->map(static fn (Arrival $a): string => $a->at->toIso8601ZuluString('millisecond'))
                ->all(),
        );
    }

    /** @return iterable<string, array{array<string, mixed>|string, string}> */
    public static function refusals(): iterable
    {
        yield 'no event' => ['nonsense', 'no-event'];
        yield 'no instant' => [['at' => 'noon'], 'no-event'];
        yield 'a page of others' => [['url' => 'https://elsewhere.example/'], 'foreign-address'];
        yield 'no address' => [['url' => 'javascript:alert(1)'], 'foreign-address'];
        yield 'a sale in no currency' => [['kind' => 'convert', 'value' => 5], 'no-event'];
        yield 'a sale of a huge value' => [
            ['kind' => 'convert', 'value' => 10 ** 13, 'currency' => 'EUR'],
            'huge-value',
        ];
        yield 'two days old' => [['at' => '2020-01-01T00:00:00Z'], 'too-late'];
    }

    /** @param array<string, mixed>|string $event */
    #[DataProvider('refusals')]
    public function test_what_can_not_be_taken_is_counted_and_the_rest_is_taken(
        array|string $event,
        string $why,
    ): void {
        $this->report([is_string($event) ? $event : self::event($event), self::event()])
            ->assertStatus(422)
            ->assertJson(['taken' => 1, 'refused' => [$why => 1]]);
        self::assertSame([$why => 1], $this->refused());
        self::assertSame([['why' => $why, 'n' => 1]], $this->api('GET', '/sites')->json('items.0.refused'));
    }

    public function test_what_arrived_before_the_plan_finds_its_ad_by_the_key_that_the_plan_has_for_it(): void
    {
        $this->imported();
        $ad = Node::query()->where('is_ad', true)->firstOrFail();
        $this->report([self::event(['url' => "https://shop.example/?utm_content={$ad->external_id}"])]);
        $this->artisan('arrivals:read')->assertSuccessful();
        self::assertNull(Arrival::query()->value('node_id'));

        $plan = ['revision' => 0, 'document' => self::PLAN];
        $this->api('PUT', '/plan', $plan)->assertOk();
        $this->artisan('arrivals:read')->assertSuccessful();
        self::assertSame($ad->id, Arrival::query()->value('node_id'));
        self::assertSame($ad->id, DB::table('site_sessions')->value('node_id'));
    }

    public function test_what_is_no_text_and_what_is_too_long_is_kept_as_far_as_it_can_be(): void
    {
        $long = str_repeat('ä', 700);
        $this->report([
            self::event(['url' => 'https://shop.example/?utm_source=%FF%FEa&utm_medium=%C3&utm_campaign='.$long]),
            self::event(['url' => "https://shop.example/{$long}?nqcid=%FFx", 'visitor' => 'w1']),
        ])->assertStatus(202);
        $this->artisan('arrivals:read')->assertSuccessful();
        self::assertSame(2, DB::table('site_sessions')->count());
        self::assertSame("\u{FFFD}\u{FFFD}a", DB::table('site_sessions')->where('how', 'keys')->value('source'));
    }

    public function test_what_a_page_sold_counts_for_the_session_that_led_to_it(): void
    {
        $this->report([self::event(['visitor' => 'w1'])])->assertStatus(202);
        $sale = self::event([
            'kind' => 'convert',
            'visitor' => 'w1',
            'url' => 'https://shop.example/thanks',
            'order' => 'A1',
            'value' => 4900,
            'currency' => 'EUR',
            'items' => [['id' => 'foot', 'name' => 'Foot passenger', 'quantity' => 2, 'value' => 4900]],
        ]);
        $this->report([$sale, ['id' => 'again'] + $sale])->assertJson(['taken' => 2]);
        $this->report([self::event(['kind' => 'convert', 'visitor' => 'w1', 'name' => 'trial', 'test' => true])]);
        $this->artisan('arrivals:read')->assertSuccessful();

        $today = now()->toDateString();
        $told = $this->api('POST', '/results', ['by' => ['source'], 'from' => $today, 'to' => $today])->json();
        self::assertSame(
            [['a'], 1, ['EUR' => 4900]],
            [
                $told['lines'][0]['by'],
                $told['lines'][0]['now']['conversions'],
                $told['lines'][0]['now']['revenue'],
            ],
        );
        $arrival = Arrival::query()->where('kind', 'view')->firstOrFail();
        $pages = $this->api('GET', "/arrivals/{$arrival->id}/way")->json('sessions.0.pages');
        self::assertSame(
            [null, 'yes', 'repeated', 'test'],
            array_map(static fn (array $p): ?string => $p['conversion']['counts'] ?? null, $pages),
        );
    }

    public function test_servers_hand_conversions_and_refunds_in_by_a_token_days_later_and_twice(): void
    {
        $owner = $this->member(Role::Owner, $this->client);
        $this->api('POST', "/sites/{$this->site->id}/token", [], $this->editor)->assertForbidden();
        $made = $this->api('POST', "/sites/{$this->site->id}/token", [], $owner)
            ->assertStatus(201)
            ->json();
        self::assertStringEndsWith("/in/{$this->site->key}/records", $made['address']);
        self::assertStringNotContainsString($made['token'], (string) json_encode(Collector::query()->get()));

        $body = [
            'events' => [
                [
                    'id' => 's1',
                    'kind' => 'convert',
                    'at' => now()->subDays(9)->toIso8601ZuluString(),
                    'order' => 'T1',
                    'value' => 12_000,
                    'currency' => 'EUR',
                ],
                ['id' => 's2', 'kind' => 'convert', 'at' => now()->subDays(90)->toIso8601ZuluString()],
                ['id' => 's3', 'kind' => 'view', 'at' => now()->toIso8601ZuluString()],
                ['id' => 's4', 'kind' => 'convert', 'at' => now()->addDay()->toIso8601ZuluString()],
            ],
            'refunds' => [
                ['id' => 'r1', 'order' => 'T1', 'at' => now()->subDay()->toIso8601ZuluString(), 'value' => 2000],
                ['id' => 'r2', 'order' => 'T1', 'at' => 'later', 'value' => 2000],
            ],
        ];
        $send = fn (string $token) => $this->postJson("/in/{$this->site->key}/records", $body, [
            'Authorization' => "Bearer {$token}",
        ]);
        $send('')->assertStatus(401);
        $send('wrong')->assertStatus(401);
        $refused = ['too-late' => 1, 'no-conversion' => 1, 'ahead' => 1, 'no-refund' => 1];
        $send($made['token'])
            ->assertStatus(422)
            ->assertExactJson(['taken' => 2, 'refused' => $refused]);
        $send($made['token'])->assertJson(['taken' => 0]);
        $this->artisan('arrivals:read')->assertSuccessful();

        $day = now()->subDays(9)->toDateString();
        $told = $this->api('POST', '/results', ['by' => [], 'from' => $day, 'to' => $day])->json('total.now');
        self::assertSame(
            [1, ['EUR' => 12_000], ['EUR' => 10_000]],
            [$told['conversions'], $told['revenue'], $told['net']],
        );
    }

    /** The list's own examples of each name; see LinksTest. */
    public function test_programs_that_say_what_they_are_are_counted_and_not_taken(): void
    {
        foreach (['curl/8.5.0', 'Mozilla/5.0 (X11; Linux x86_64) HeadlessChrome/146.0 Safari/537.36'] as $agent) {
            $this->report([self::event(), self::event()], agent: $agent)
                ->assertStatus(422)
                ->assertExactJson(['taken' => 0, 'refused' => ['program' => 1]]);
        }
        self::assertSame(['program' => 2], $this->refused());
        self::assertSame(0, Arrival::query()->count());
        $this->report([self::event()])->assertStatus(202);
    }

    public function test_other_origins_forged_keys_and_floods_are_refused(): void
    {
        $this->report([self::event()], 'https://elsewhere.example')->assertStatus(403);
        $this->report([self::event()], 'null')->assertStatus(403);
        $this->report([self::event()], 'https://a.stories.example')->assertStatus(202);
        self::assertSame(['foreign-origin' => 2], $this->refused());
        $this->postJson('/in/'.str_repeat('b', 24), ['events' => [self::event()]])->assertStatus(404);
        $this->postJson('/in/short', [])->assertStatus(405);

        $many = array_map(static fn (): array => self::event(), range(1, 53));
        $this->report($many)->assertJson(['taken' => 50, 'refused' => ['too-many' => 3]]);
        $this->report([self::event(['url' => 'https://shop.example/'.str_repeat('a', 70_000)])])->assertStatus(
            413,
        );
        $this->call(
            'POST',
            "/in/{$this->site->key}",
            server: ['HTTP_ORIGIN' => 'https://shop.example'],
            content: '{',
        )
            ->assertStatus(422)
            ->assertJson(['refused' => ['no-events' => 1]]);
        self::assertSame(51, Arrival::query()->count());
    }

    public function test_a_site_is_added_by_an_owner_and_ended_and_what_arrived_stays(): void
    {
        $owner = $this->member(Role::Owner, $this->client);
        $site = ['name' => 'Blog', 'hosts' => ['blog.example']];
        $made = $this->api('POST', '/sites', $site, $owner)->assertStatus(201)->json('items.0');
        self::assertSame('Blog', $made['name']);
        self::assertStringContainsString("/in.js\" data-key=\"{$made['key']}\"", $made['script']);
        $this->api('POST', '/sites', $site, $owner)->assertStatus(422);
        $this->api('POST', '/sites', ['name' => 'X', 'hosts' => ['https://x.example/']], $owner)->assertStatus(
            422,
        );

        $this->report([self::event()])->assertStatus(202);
        $this->api('DELETE', "/sites/{$this->site->id}", [], $owner)->assertStatus(204);
        $this->report([self::event()])->assertStatus(404);
        self::assertSame(1, Arrival::query()->count());
    }

    public function test_the_script_is_small_and_speaks_only_to_its_own_address(): void
    {
        $script = (string) file_get_contents(public_path('in.js'));
        self::assertLessThanOrEqual(1500, strlen((string) gzencode($script, 9)));
        self::assertStringNotContainsString('cookie =', $script);
        self::assertSame(0, preg_match('~https?://~', $script));
    }
}
