<?php

namespace Tests\Feature;

use App\Jobs\ProveAccount;
use App\Models\Account;
use App\Models\Client;
use App\Models\Node;
use App\Models\Role;
use App\Models\Trouble;
use App\Watching\Gathering;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** What is wrong over all accounts, by cause. */
final class TroubleTest extends TestCase
{
    private Account $account;

    protected function setUp(): void
    {
        parent::setUp();
        $this->planned();
        // another client's account comes first: none has the number of its client, or stands in for it
        $other = Client::factory()->create();
        $link = $other->connections()->create(['dialect' => 'mossfeed', 'title' => 'other', 'credentials' => []]);
        DB::table('accounts')->insert([
            'client_id' => $other->id,
            'connection_id' => $link->id,
            'dialect' => 'mossfeed',
            'external_id' => 'other',
            'name' => 'Other',
        ]);
        $this->account = $this->imported();
        self::assertNotSame($this->client->id, $this->account->id);
        ProveAccount::dispatchSync($this->account->id);
    }

    /** @return list<array<string, mixed>> as they are told after somebody has looked again */
    private function told(): array
    {
        DB::table('clients')->update(['troubles_at' => null, 'wrong_at' => null]);

        return $this->api('GET', '/troubles')->assertOk()->json('items');
    }

    public function test_ads_that_are_wrong_in_the_same_way_are_one_cause_and_cost_what_their_clicks_have_cost(): void
    {
        $broken = Node::query()->where(['is_ad' => true, 'state' => 'broken'])->orderBy('id')->get();
        self::assertGreaterThan(20, $broken->count());
        foreach ($broken->take(3) as $i => $ad) {
            DB::table('figures')->insert([
                'client_id' => $this->client->id,
                'account_id' => $this->account->id,
                'node_id' => $ad->id,
                'day' => now()->subDays($i + 1)->toDateString(),
                'impressions' => 100,
                'clicks' => 10,
                'cost' => 700,
                'currency' => 'EUR',
                'conversions' => 0,
                'value' => 0,
            ]);
        }
        $told = $this->told();
        $causes = array_filter($told, static fn (array $t): bool => $t['kind'] === 'broken');
        self::assertSame($broken->count(), array_sum(array_column($causes, 'ads')));
        self::assertSame(2100, array_sum(array_column($causes, 'cost')));
        self::assertSame(30, array_sum(array_column($causes, 'clicks')));
        // by hand: values between quotation marks differ from ad to ad, what is wrong with them does not
        $byHand = $broken
            ->groupBy(static fn (Node $n): string => (string) preg_replace('/“[^”]*”/u', '“…”', (string) $n->fault))
            ->map->count()
            ->sort()
            ->values()
            ->all();
        $ads = array_column($causes, 'ads');
        sort($ads);
        self::assertSame($byHand, $ads);

        foreach ($causes as $cause) {
            $of = $this->api('GET', "/troubles/{$cause['id']}/ads")->json();
            self::assertCount($cause['ads'], $of['ids']);
            self::assertSame($cause['cost'], array_sum(array_column($of['items'], 'cost')));
        }
        $dearest = $told[0];
        self::assertSame(max(array_column($told, 'cost')), $dearest['cost']);
    }

    public function test_names_off_their_pattern_are_one_cause_of_an_account_and_cost_what_the_clicks_below_have(): void
    {
        $campaigns = $this->account->nodes()->where('level', 'campaign')->orderBy('id')->get();
        $campaigns[0]->update(['name' => 'Halvey | Brand']);
        $this->api('PUT', '/agreements/names', ['revision' => 0, 'document' => ['patterns' => [[
            'format' => 'vestigon.naming/1',
            'separator' => ' | ',
            'for' => ['levels' => ['campaign']],
            'parts' => [['name' => 'market', 'words' => ['Halvey']], ['name' => 'aim']],
        ]]]])->assertOk();
        ProveAccount::dispatchSync($this->account->id);
        foreach ([$campaigns[0], $campaigns[1]] as $i => $campaign) {
            $group = $this->account->nodes()->where('parent_id', $campaign->id)->firstOrFail();
            $ad = $this->account->nodes()->where('parent_id', $group->id)->firstOrFail();
            DB::table('figures')->insert([
                'client_id' => $this->client->id,
                'account_id' => $this->account->id,
                'campaign_id' => $campaign->id,
                'group_id' => $group->id,
                'node_id' => $ad->id,
                'day' => now()->subDay()->toDateString(),
                'impressions' => 100,
                'clicks' => 10 + $i,
                'cost' => 700 + $i,
                'currency' => 'EUR',
                'conversions' => 0,
                'value' => 0,
            ]);
        }
        $one = array_column($this->told(), null, 'kind')['names'];

        self::assertSame(
            [count($campaigns) - 1 .' names are off their pattern', 1, 11, 701],
            [$one['what'], $one['ads'], $one['clicks'], $one['cost']],
            'the first campaign is as it should be',
        );
        $ids = $this->api('GET', "/troubles/{$one['id']}/ads")->assertOk()->json('ids');
        self::assertSame(array_values($campaigns->slice(1)->modelKeys()), $ids);

        $names = $this->account->nodes()->whereKey($ids);
        $names->each(static fn (Node $n) => $n->update(['name' => "Halvey | {$n->id}"]));
        ProveAccount::dispatchSync($this->account->id);
        self::assertNotNull(array_column($this->told(), null, 'kind')['names']['mendedAt']);
    }

    public function test_a_cause_is_kept_when_it_is_mended_and_told_again_when_it_comes_back(): void
    {
        Carbon::setTestNow('2026-10-05 09:00:00');
        $first = collect($this->told())->firstWhere('kind', 'broken');
        DB::table('nodes')->where('state', 'broken')->update(['state' => 'proven']);
        Carbon::setTestNow('2026-10-06 09:00:00');
        $mended = collect($this->told())->firstWhere('id', $first['id']);
        self::assertSame('2026-10-06T09:00:00Z', $mended['mendedAt']);

        DB::table('nodes')->where(['is_ad' => true, 'state' => 'proven'])->update(['state' => 'broken']);
        Carbon::setTestNow('2026-10-07 09:00:00');
        $back = collect($this->told())->firstWhere('id', $first['id']);
        self::assertSame([null, '2026-10-07T09:00:00Z', '2026-10-05T09:00:00Z'], [
            $back['mendedAt'],
            $back['returnedAt'],
            $back['firstAt'],
        ]);
        Carbon::setTestNow();
    }

    /** Against the sessions themselves, one by one: people of the simulated world who click, among them mistyped links. */
    public function test_what_arrives_wrong_is_told_with_the_ads_that_it_comes_from(): void
    {
        $this->client->collectors()->create(['site' => 'velmar', 'credentials' => 'tally-4410']);
        $this->standins('/people', ['days' => 12, 'seed' => 1]);
        $this->artisan('arrivals:read', ['--all' => true])->assertSuccessful();
        $ads = DB::table('site_sessions')->where('account_id', $this->account->id)->whereNotNull('node_id');
        $wrong = (clone $ads)->orderBy('id')->limit(7)->pluck('id');
        DB::table('site_sessions')->whereIn('id', $wrong)->update(['campaign' => '{campaign.name}', 'source' => 'NQ']);
        // proven, and yet nothing arrives under a key: something on the way loses it
        $others = (clone $ads)->whereNotIn('id', $wrong);
        $loses = $others->groupBy('node_id')->orderByRaw('count(*) desc')->value('node_id');
        (clone $ads)->where('node_id', $loses)->update(['campaign' => '']);
        Node::query()->whereKey($loses)->update(['state' => 'proven']);
        $kept = (clone $ads)->whereNotIn('id', $wrong)->where('node_id', '<>', $loses);
        $renamed = $kept->orderBy('id')->limit(4)->pluck('id');
        DB::table('site_sessions')->whereIn('id', $renamed)->update(['campaign' => 'autumn_before']);
        $campaign = Node::query()->where(['account_id' => $this->account->id, 'depth' => 1])->firstOrFail();
        DB::table('former_names')->insert([
            'account_id' => $this->account->id,
            'node_id' => $campaign->id,
            'name' => 'Autumn before',
            'until' => now()->subDays(50),
        ]);
        $days = DB::table('site_sessions')->distinct()->pluck('day');
        DB::table('result_days')->whereIn('day', $days)->increment('version');

        $told = collect($this->told())->where('kind', 'arrives');
        self::assertGreaterThanOrEqual(2, $told->count());
        $old = $told->where('about.code', 'old-name')->firstOrFail();
        self::assertStringContainsString("“{$campaign->name}” no longer has", $old['what']);
        $placements = 0;
        foreach (Trouble::query()->where('kind', 'arrives')->get() as $trouble) {
            ['code' => $code, 'name' => $name, 'values' => $values] = $trouble->about;
            $proven = Node::query()->where('state', 'proven')->pluck('id')->flip();
            $of = DB::table('site_sessions')->where('views', '>', 0)->get()->filter(
                static fn (object $s): bool => (int) $s->account_id === (int) $trouble->account_id
                    && in_array($name === 'channel' ? "{$s->source} / {$s->medium}" : $s->{$name}, $values, true)
                    && ($code !== 'empty-value' || $proven->has((int) $s->node_id)), // of others the proof says so
            );
            self::assertSame($of->count(), $trouble->clicks, $trouble->what);
            $nodes = $of->pluck('node_id')->filter()->unique()->sort()->values()->all();
            $nodes = $trouble->account_id === null ? [] : $nodes;
            self::assertSame(count($nodes), $trouble->ads, $trouble->what);
            $answer = $this->api('GET', "/troubles/{$trouble->id}/ads");
            self::assertSame($nodes, $answer->json('ids'));
            $placed = $code === 'empty-value' ? [] : $answer->json('placements'); // those of other ads are empty too
            foreach ($placed as ['placement' => $placement, 'wrong' => $n]) {
                self::assertSame($of->where('placement', $placement)->count(), $n, $placement);
            }
            $placements += count($placed);
        }
        self::assertGreaterThan(1, $placements);
        $empty = $told->where('about.code', 'empty-value')->firstWhere('about.key', 'utm_campaign');
        self::assertContains($loses, $this->api('GET', "/troubles/{$empty['id']}/ads")->json('ids'));
        $token = $told
            ->where('account.id', $this->account->id)
            ->where('about.code', 'raw-token')
            ->firstWhere('about.key', 'utm_campaign');
        self::assertSame(
            ['utm_campaign', $this->account->id, $wrong->count()],
            [$token['about']['key'], $token['account']['id'], $token['clicks']],
        );

        $this->travel(1)->hours();
        (clone $ads)->whereIn('id', $wrong)->update(['campaign' => 'summer']);
        DB::table('result_days')->whereIn('day', $days)->increment('version');
        self::assertNotNull(collect($this->told())->firstWhere('id', $token['id'])['mendedAt']);
    }

    public function test_keys_that_arrive_twice_and_strangers_from_ones_own_hosts_are_told(): void
    {
        $key = str_repeat('a', 24);
        $site = ['site' => 'Shop', 'hosts' => ['shop.example', 'book.example'], 'key' => $key];
        $this->client->collectors()->create($site);
        $event = static fn (string $visitor, string $url, string $referrer = '', int $ago = 0): array => [
            'id' => "{$visitor}-{$ago}",
            'site' => 'here',
            'kind' => 'view',
            'at' => now()->subMinutes($ago)->toIso8601ZuluString('millisecond'),
            'visitor' => str_pad($visitor, 8, 'x'),
            'url' => $url,
            'referrer' => $referrer,
        ];
        $events = [];
        foreach (['a', 'b', 'c'] as $visitor) {
            $events[] = $event("twice-{$visitor}", 'https://shop.example/?utm_source=x&utm_source=y&utm_medium=cpc');
            $events[] = $event("lost-{$visitor}", 'https://book.example/seats', 'https://shop.example/cars');
            // who is known, and had only been away for long, is not lost
            $events[] = $event("known-{$visitor}", 'https://shop.example/', '', 90);
            $events[] = $event("known-{$visitor}", 'https://book.example/seats', 'https://shop.example/cars');
        }
        $this->postJson("/in/{$key}", ['sent' => now()->toIso8601ZuluString('millisecond'), 'events' => $events], [
            'Origin' => 'https://shop.example',
            'User-Agent' => 'Mozilla/5.0 (X11; Linux x86_64) Chrome/146.0 Safari/537.36',
        ])->assertJsonPath('taken', 12);
        while ($this->app->make(Gathering::class)->some() > 0) {
            continue;
        }

        $told = collect($this->told())->where('kind', 'arrives')->keyBy('about.code');
        self::assertSame([3, 'utm_source'], [$told['doubled-key']['clicks'], $told['doubled-key']['about']['key']]);
        self::assertSame([3, ''], [
            $told['lost-between-own-hosts']['clicks'],
            $told['lost-between-own-hosts']['about']['key'],
        ]);
        self::assertStringContainsString('from shop.example', $told['lost-between-own-hosts']['what']);
    }

    public function test_a_campaign_that_stops_arriving_while_it_is_clicked_on_is_told(): void
    {
        $this->client->collectors()->create(['site' => 'velmar', 'credentials' => 'tally-4410']);
        $this->standins('/people', ['days' => 12, 'seed' => 1]);
        $this->artisan('arrivals:read', ['--all' => true])->assertSuccessful();
        $this->artisan('figures:read')->assertSuccessful();
        $stopped = fn () => collect($this->told())->where('about.code', 'stopped')->whereNull('mendedAt')->values();
        self::assertSame([], $stopped()->all());

        $campaign = DB::table('site_sessions')
            ->whereNotNull('campaign_id')
            ->groupBy('campaign_id')
            ->orderByRaw('count(*) desc')
            ->value('campaign_id');
        $of = DB::table('site_sessions')->where('campaign_id', $campaign);
        (clone $of)->where('begin', '>=', now()->subDay()->startOfDay())->delete(); // at any time of the day
        $ads = (clone $of)->where('day', '>=', now()->subDays(9)->toDateString())->distinct()->pluck('node_id');
        $told = $stopped();
        self::assertCount(1, $told);
        $figures = DB::table('figures')
            ->whereIn('node_id', $ads)
            ->where('day', '>=', now($this->client->time_zone)->subDay()->toDateString());
        self::assertSame(
            [(int) (clone $figures)->sum('clicks'), (int) (clone $figures)->sum('cost')],
            [$told[0]['clicks'], $told[0]['cost']],
        );
        self::assertStringContainsString(Node::query()->findOrFail($campaign)->name, $told[0]['what']);
        self::assertNotSame([], $this->api('GET', "/troubles/{$told[0]['id']}/ads")->json('ids'));
    }

    public function test_a_report_of_it_needs_nothing_else(): void
    {
        Node::query()->where('is_ad', true)->limit(3)->update(['state' => 'broken', 'fault' => '<b>x</b> & "y"']);
        $told = collect($this->told());
        $page = $this->api('GET', '/troubles/report?kind=html')->assertOk();
        self::assertStringContainsString('attachment', (string) $page->headers->get('Content-Disposition'));
        $document = new \DOMDocument();
        self::assertTrue($document->loadHTML('<?xml encoding="utf-8"?>'.$page->getContent(), LIBXML_NOERROR));
        $text = preg_replace('/\s+/', ' ', $document->textContent);
        foreach ($told as $trouble) {
            self::assertStringContainsString($trouble['what'], (string) $text);
        }
        // no script, nothing that is fetched from elsewhere
        self::assertSame(0, preg_match('~<script|<link|src=|@import|url\((?!#)|https?://~i', $page->getContent()));
        self::assertGreaterThanOrEqual(3, $document->getElementsByTagName('path')->length);

        $path = (string) tempnam(sys_get_temp_dir(), 'audit').'.xlsx';
        $workbook = $this->api('GET', '/troubles/report?kind=xlsx')->assertOk()->baseResponse;
        copy($workbook->getFile()->getPathname(), $path);
        $sheet = \PhpOffice\PhpSpreadsheet\IOFactory::load($path)->getSheet(0)->toArray();
        unlink($path);
        self::assertSame(
            $told->map(static fn (array $t): array => [$t['what'], $t['where'], (string) $t['ads']])->all(),
            array_map(static fn (array $r): array => [$r[0], $r[1], (string) $r[3]], array_slice($sheet, 1)),
        );
    }

    public function test_a_cause_stays_the_same_when_another_value_is_wrong_in_the_same_way(): void
    {
        DB::table('nodes')->where('is_ad', true)->update(['state' => 'proven', 'fault' => null]);
        [$one, $two] = Node::query()->where('is_ad', true)->orderBy('id')->limit(2)->get()->all();
        $wrong = static fn (Node $ad, string $value) => DB::table('nodes')
            ->where('id', $ad->id)
            ->update(['state' => 'broken', 'fault' => "utm_source arrives as “{$value}”; the plan says “a”."]);
        $wrong($one, 'letter');
        $first = collect($this->told())->firstWhere('kind', 'broken');
        self::assertSame('utm_source arrives as “letter”; the plan says “a”.', $first['what']);
        $wrong($two, 'agency');
        $then = collect($this->told())->where('kind', 'broken')->values();
        self::assertCount(1, $then);
        self::assertSame(
            [$first['id'], 'utm_source arrives as “…”; the plan says “…”.', 2],
            [$then[0]['id'], $then[0]['what'], $then[0]['ads']],
        );
        self::assertSame([$one->id, $two->id], $this->api('GET', "/troubles/{$first['id']}/ads")->json('ids'));
    }

    public function test_one_may_stay_as_it_is_until_a_day_and_who_said_so_is_known(): void
    {
        $id = $this->told()[0]['id'];
        $accept = fn (array $how, ?\App\Models\User $as = null) => $this->api(
            'PUT',
            "/troubles/{$id}/accepted",
            $how,
            $as,
        );
        $until = now()->addDays(20)->toDateString();
        $accept(['until' => '2020-01-01', 'why' => 'x'])->assertStatus(422)->assertJsonValidationErrors(['until']);
        $accept(['until' => $until])->assertStatus(422)->assertJsonValidationErrors(['why']);
        $accept(
            ['until' => $until, 'why' => 'off season'],
            $this->member(Role::Viewer, $this->client),
        )->assertForbidden();
        $accept(['until' => $until, 'why' => 'off season'])->assertOk();
        $accepted = collect($this->told())->firstWhere('id', $id)['accepted'];
        self::assertSame(['until' => $until, 'why' => 'off season', 'by' => $this->editor->name], $accepted);
        $this->api('DELETE', "/troubles/{$id}/accepted")->assertOk()->assertJsonPath('accepted', null);
        self::assertSame(
            2,
            DB::table('audit')->whereIn('what', ['trouble-accepted', 'trouble-accepted-no-longer'])->count(),
        );
    }

    public function test_what_arrives_elsewhere_and_what_never_arrives_is_told(): void
    {
        $site = $this->client->collectors()->create(['site' => 's', 'hosts' => ['velmar.localhost']]);
        [$arrives, $silent] = Node::query()->where('is_ad', true)->orderBy('id')->limit(2)->get()->all();
        $today = now()->toDateString();
        foreach ([$arrives, $silent] as $ad) {
            DB::table('figures')->insert([
                'client_id' => $this->client->id,
                'account_id' => $this->account->id,
                'node_id' => $ad->id,
                'day' => now()->subDays(2)->toDateString(),
                'impressions' => 100,
                'clicks' => 30,
                'cost' => 900,
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
        }
        foreach (range(1, 12) as $i) {
            DB::table('site_sessions')->insert([
                'id' => $i,
                'client_id' => $this->client->id,
                'collector_id' => $site->id,
                'begin' => "{$today} 09:00:00",
                'end' => "{$today} 09:00:00",
                'day' => $today,
                'views' => 1,
                'is_tracked' => true,
                'how' => 'keys',
                'channel' => 'E-mail',
                'account_id' => $this->account->id,
                'node_id' => $arrives->id,
            ]);
        }
        $told = collect($this->told());
        $elsewhere = $told->firstWhere('kind', 'elsewhere');
        self::assertSame('counted as “E-mail”, wanted as “Paid search”', $elsewhere['what']);
        self::assertSame([1, 12], [$elsewhere['ads'], $elsewhere['clicks']]);
        self::assertSame([$arrives->id], $this->api('GET', "/troubles/{$elsewhere['id']}/ads")->json('ids'));
        $nothing = $told->firstWhere('kind', 'silent');
        self::assertSame([1, 30, 900], [$nothing['ads'], $nothing['clicks'], $nothing['cost']]);
        self::assertSame([$silent->id], $this->api('GET', "/troubles/{$nothing['id']}/ads")->json('ids'));

        Account::query()->update(['imported_at' => now()->subDays(40)]);
        self::assertNotNull(collect($this->told())->firstWhere('kind', 'stale'));
    }

    public function test_proof_is_kept_for_each_day_as_it_was_at_its_end(): void
    {
        $count = static fn (string $state): int => Node::query()->where(['is_ad' => true, 'state' => $state])->count();
        $day = $this->api('GET', '/troubles')->json('days');
        self::assertSame(
            [
                [
                    'day' => now()->toDateString(),
                    'proven' => $count('proven'),
                    'broken' => $count('broken'),
                    'untracked' => $count('untracked'),
                ],
            ],
            $day,
        );
    }
}
