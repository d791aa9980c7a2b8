<?php

namespace Tests\Feature;

use App\Accounts\Branches;
use App\Accounts\FormerNames;
use App\Arrivals\Visitor;
use App\Models\Account;
use App\Models\Arrival;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Client;
use App\Models\Node;
use App\Models\Role;
use App\Models\Text;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** A past that was tracked badly, read as it was meant. */
final class MeantTest extends TestCase
{
    private const LINE = ['source', 'medium', 'campaign', 'content'];

    private function lived(Client $client): void
    {
        $client->collectors()->create([
            'site' => 'velmar',
            'credentials' => 'tally-4410',
            'read_up_to' => (int) DB::table('arrivals')->max('external_id'), // of this life alone
        ]);
        $this->standins('/people', ['days' => 6, 'seed' => 3]);
        $this->artisan('arrivals:read', ['--all' => true])->assertSuccessful();
    }

    /** @return array<string, mixed> */
    private function reading(string $names = 'today'): array
    {
        $days = ['from' => now()->subDays(12)->toDateString(), 'to' => now()->toDateString()];
        $id = $this->api('POST', '/readings', $days + ['names' => $names])->assertStatus(202)->json('id');

        return $this->api('GET', "/readings/{$id}")->assertOk()->assertJsonPath('status', 'done')->json();
    }

    /** @return array<string, int> sessions with a click ID by line, of one campaign */
    private static function lines(string $table, int $account, string $campaign): array
    {
        $lines = [];
        $ours = Node::query()->where('account_id', $account);
        $rows = DB::table($table)
            ->where('account_id', $account)
            ->where('campaign_id', $ours->where('external_id', $campaign)->value('id'))
            ->where('click_id', '<>', '')
            ->where('views', '>', 0)
            ->groupBy(...self::LINE)
            ->get([...self::LINE, DB::raw('count(*) n')]);
        foreach ($rows as $row) {
            $lines["{$row->source} {$row->medium} {$row->campaign} {$row->content}"] = (int) $row->n;
        }

        return $lines;
    }

    /** The same people, who click the same: once their ads send what they should, once what they should not. */
    public function test_it_reads_like_one_that_was_tracked_right(): void
    {
        $this->planned();
        $account = $this->imported();
        // one campaign is enough
        $campaign = Node::query()
            ->where(['account_id' => $account->id, 'depth' => 1, 'standing' => 'live'])
            ->orderByDesc('ads')
            ->firstOrFail();
        $number = $campaign->external_id;
        $change = Change::query()->findOrFail($this->api('POST', '/changes', [
            'account' => $account->id,
            'title' => 'In line',
            'over' => ['nodes' => [$campaign->id]],
            'existing' => 'replace',
            'carrier' => 'fewest',
        ])->assertStatus(202)->json('id'));
        foreach (['trial', 'rest'] as $stage) {
            $this->api('POST', "/changes/{$change->id}/application")->assertStatus(202);
        }
        self::assertSame(ChangeStatus::Done, $change->refresh()->status, (string) $change->problem);
        $this->lived($this->client);
        $right = self::lines('site_sessions', $account->id, $number);
        $this->breakTexts($campaign);

        $other = Client::factory()->create();
        $this->client = $other;
        $this->editor = $this->member(Role::Editor, $other);
        $this->planned();
        $same = $this->imported();
        $this->lived($other);
        $arrived = DB::select('checksum table arrivals');
        $broken = self::lines('site_sessions', $same->id, $number);
        $reading = $this->reading();
        self::assertGreaterThan(100, $reading['healed']);
        self::assertGreaterThanOrEqual($reading['healed'], $reading['views']);
        self::assertEquals($arrived, DB::select('checksum table arrivals'), 'what arrived stays');

        self::assertGreaterThan(100, array_sum($right));
        self::assertGreaterThan(0.3 * array_sum($right), self::off($right, $broken), 'it was tracked badly');
        self::assertLessThan(
            0.01 * array_sum($right),
            self::off($right, self::lines('meant_sessions', $same->id, $number)),
            'at least 99 of 100 sessions stand on the same line',
        );
    }

    /** What its texts say is another source, and no campaign. */
    private function breakTexts(Node $campaign): void
    {
        $account = Account::query()->findOrFail($campaign->account_id);
        $below = Branches::below($account, [$campaign->id]);
        $texts = Text::query()
            ->whereNull('until')
            ->whereIn('kind', ['template', 'suffix', 'landing'])
            ->whereIn('node_id', Node::query()->whereIn('parent_id', $below)->orWhereIn('id', $below)->select('id'))
            ->get(['node_id', 'kind', 'text'])
            ->groupBy('node_id');
        $broken = 0;
        foreach (Node::query()->whereKey($texts->keys())->get() as $node) {
            $slots = $texts[$node->id]->pluck('text', 'kind')->all();
            $other = array_map(static fn (string $text): string => (string) preg_replace(
                ['/utm_source=northquay/', '/&utm_campaign=[^&#]*/'],
                ['utm_source=NQ', ''],
                $text,
            ), array_diff_key($slots, ['landing' => true]));
            if ($other !== array_diff_key($slots, ['landing' => true])) {
                $set = ['slots' => $other + $slots];
                $this->standins('/edit', ['site' => 'northquay', 'id' => $node->external_id, 'set' => $set]);
                $broken++;
            }
        }
        self::assertGreaterThan(0, $broken);
    }

    /**
     * @param array<string, int> $right
     * @param array<string, int> $other
     */
    private static function off(array $right, array $other): float
    {
        $off = 0;
        foreach ($right + $other as $line => $_) {
            $off += abs(($right[$line] ?? 0) - ($other[$line] ?? 0));
        }

        return $off / 2;
    }

    public function test_results_are_asked_of_it_as_of_what_arrived_and_it_goes_out_as_a_sheet(): void
    {
        $this->planned();
        $account = $this->imported();
        $this->lived($this->client);
        $reading = $this->reading();
        $ask = fn (array $more): array => $this->api('POST', '/results', [
            'by' => ['source', 'campaign'],
            'from' => $reading['from'],
            'to' => $reading['to'],
            ...$more,
        ])->assertOk()->json();
        $arrived = $ask([]);
        $meant = $ask(['reading' => $reading['id']]);
        // sessions may be put together otherwise; what was bought is bought once, whatever it counts for
        foreach (['conversions', 'revenue', 'views'] as $measure) {
            self::assertEquals($arrived['total']['now'][$measure], $meant['total']['now'][$measure], $measure);
        }
        $of = static fn (array $told): array => array_filter(
            $told['lines'],
            static fn (array $line): bool => $line['by'][0] === 'northquay' && $line['by'][1] !== '',
        );
        self::assertGreaterThan(count($of($arrived)), count($of($meant)), 'campaigns have their lines');

        $where = [['by' => 'ad', 'is' => [(string) Node::query()->where('is_ad', true)->value('id')]]];
        $sum = static fn (array $told): int => $told['total']['now']['views'];
        self::assertSame($sum($ask(['where' => $where])), $sum($ask(['where' => $where, 'reading' => $reading['id']])));
        $behind = $this->api('POST', '/results/sessions', [
            'by' => ['source'],
            'from' => $reading['from'],
            'to' => $reading['to'],
            'where' => [['by' => 'account', 'is' => [(string) $account->id]]],
            'reading' => $reading['id'],
        ])->assertOk();
        self::assertContains('northquay', array_column($behind->json('items'), 'source'));

        // what was bought is told apart in it too, and adds up to the same
        $bought = static fn (array $told): array => array_filter(
            array_map(static fn (array $line): int => $line['now']['revenue']['EUR'] ?? 0, $told['lines']),
        );
        $items = $bought($ask(['by' => ['item'], 'limit' => 1000, 'reading' => $reading['id']]));
        self::assertGreaterThan(2, count($items));
        self::assertSame($meant['total']['now']['revenue']['EUR'], array_sum($items));

        $file = $this->api('GET', "/readings/{$reading['id']}/file")->assertOk();
        $rows = array_map(str_getcsv(...), explode("\r\n", trim($file->baseResponse->getFile()->getContent())));
        self::assertSame(['key', 'arrived', 'was meant', 'views'], $rows[0]);
        self::assertContains('utm_source', array_column($rows, 0));

        $known = Arrival::query()->with('client', 'collector')->whereNotNull('node_id');
        $one = $known->whereNotNull('visitor')->firstOrFail();
        $theirs = DB::table('meant_sessions')->where('visitor', $one->visitor);
        self::assertGreaterThan(0, (clone $theirs)->count());
        app(Visitor::class)->forget($one);
        self::assertSame(0, $theirs->count(), 'who is forgotten is forgotten here too');

        $foreign = Client::factory()->create()->readings()->create([
            'from_day' => $reading['from'],
            'to_day' => $reading['to'],
            'names' => 'today',
            'status' => 'done',
        ]);
        $this->api('POST', '/results', [
            'by' => [],
            'from' => $reading['from'],
            'to' => $reading['to'],
            'reading' => $foreign->id,
        ])->assertStatus(422);
    }

    public function test_a_balance_is_told_of_it_too(): void
    {
        $this->planned();
        $account = $this->imported();
        $this->lived($this->client);
        $this->artisan('figures:read')->assertSuccessful();
        $reading = $this->reading();
        $ask = fn (string $what, string $more): array => $this->api(
            'GET',
            "/balance{$what}?from={$reading['from']}&to={$reading['to']}&by=campaign&account={$account->id}{$more}",
        )->assertOk()->json();
        $as = "&reading={$reading['id']}";
        [$arrived, $meant] = [$ask('', '')['total'], $ask('', $as)['total']];

        $off = static fn (array $b): int => array_sum($b['elsewhere']) + $b['empty'] + $b['raw'];
        self::assertGreaterThan(0, $off($arrived), 'it was tracked badly');
        self::assertLessThan(0.1 * $off($arrived), $off($meant), 'what the plan says is where it should be');
        self::assertGreaterThan($arrived['arrived'], $meant['arrived']);
        self::assertSame($arrived['clicks'], $meant['clicks']);
        foreach ([$meant, ...$ask('', $as)['lines']] as $line) {
            self::assertSame(
                $line['clicks'],
                $line['arrived'] + $off($line) + $line['broken'] + $line['untracked'] + (int) $line['tracker']
                    + (int) $line['withheld'] + $line['rest'] - (int) $line['surplus'],
            );
        }
        $claims = [$ask('/claims', '')['total']['conversions'], $ask('/claims', $as)['total']['conversions']];
        self::assertSame($claims[0]['claimed'], $claims[1]['claimed']);
        foreach ($claims as $claim) {
            $parts = array_diff_key($claim, array_flip(['claimed', 'surplus', 'elsewhere']));
            $sum = array_sum($parts) + array_sum($claim['elsewhere']) - (int) $claim['surplus'];
            self::assertSame($claim['claimed'], $sum);
        }
        $foreign = Client::factory()->create()->readings()->create([
            'from_day' => $reading['from'],
            'to_day' => $reading['to'],
            'names' => 'today',
            'status' => 'done',
        ]);
        $this->api('GET', "/balance?from={$reading['from']}&to={$reading['to']}&by=ad&reading={$foreign->id}")
            ->assertStatus(422);
    }

    public function test_without_a_plan_nothing_was_meant(): void
    {
        $this->api('POST', '/readings', ['from' => '2026-11-01', 'to' => '2026-11-02', 'names' => 'today'])
            ->assertStatus(422)
            ->assertJsonPath('message', 'There is no plan yet: what was meant is what it says. Save one under Plan.');
    }

    public function test_names_are_those_of_today_or_of_the_day(): void
    {
        $this->planned();
        $account = $this->imported();
        $this->lived($this->client);
        $ours = DB::table('site_sessions')->where('account_id', $account->id);
        $campaign = $ours->whereNotNull('campaign_id')->value('campaign_id');
        $node = Node::query()->findOrFail($campaign);
        FormerNames::keep(
            collect([$node->id => (clone $node)->forceFill(['name' => 'Once so'])]),
            collect([$node->id => $node]),
            now()->addDay(),
        );
        $campaigns = fn (string $names): array => DB::table('meant_sessions')
            ->where(['reading_id' => $this->reading($names)['id'], 'campaign_id' => $campaign])
            ->where('views', '>', 0)
            ->distinct()
            ->pluck('campaign')
            ->all();
        self::assertSame(['once_so'], $campaigns('then'));
        self::assertNotContains('once_so', $campaigns('today'));
    }
}
