<?php

namespace Tests\Feature;

use App\Accounts\LiveTexts;
use App\Connectors\RemoteNode;
use App\Jobs\ImportAccounts;
use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Import;
use App\Models\ImportStatus;
use App\Models\Node;
use App\Models\Text;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/**
 * What a platform does not have any more is kept as gone; what it delivers badly is set apart; what it only fails to
 * deliver stays.
 */
final class GoneTest extends TestCase
{
    private function again(Account $account): Import
    {
        $import = $this->client
            ->imports()
            ->create(['connection_id' => $account->connection_id, 'status' => ImportStatus::Queued]);
        ImportAccounts::dispatchSync($import->id);

        return $import->refresh();
    }

    private function edit(string $id, array $what): void
    {
        $this->standins('/edit', ['site' => 'northquay', 'id' => $id, ...$what]);
    }

    private function ad(Account $account): Node
    {
        return Node::query()
            ->where(['account_id' => $account->id, 'is_ad' => true])
            ->orderBy('position')
            ->firstOrFail();
    }

    public function test_an_element_that_is_gone_is_kept_with_all_it_has_and_comes_back_as_the_same(): void
    {
        $account = $this->imported();
        $this->planned();
        $ad = $this->ad($account);
        $change = $this->inLine($account);
        foreach (['trial', 'rest'] as $stage) {
            $this->api('POST', "/changes/{$change->id}/application")->assertStatus(202);
        }
        self::assertSame(ChangeStatus::Done, $change->refresh()->status, (string) $change->problem);
        $has = static fn (): array => [
            DB::table('ledger')->count(),
            DB::table('change_writes')->count(),
            DB::table('texts')->count(),
            DB::table('nodes')->count(),
        ];
        $before = $has();
        $texts = Text::query()->where('node_id', $ad->id)->get()->toArray();
        $ads = Node::query()->where('is_ad', true)->count();
        $root = Node::query()->whereNull('parent_id')->firstOrFail();

        $this->edit($ad->external_id, ['remove' => true]);
        self::assertStringContainsString('1 elements of', (string) $this->again($account)->notes);
        self::assertSame([$before, $texts], [$has(), Text::query()->where('node_id', $ad->id)->get()->toArray()]);
        self::assertNotNull(Node::withTrashed()->findOrFail($ad->id)->gone_at);
        self::assertSame(
            [$ads - 1, $ads - 1],
            [Node::query()->where('is_ad', true)->count(), $root->refresh()->ads],
            'it counts no more',
        );
        $this->api('GET', '/accounts')->assertJsonPath('items.0.gone', 1);
        $this->api('GET', "/accounts/{$account->id}/rows?state=gone")->assertJsonPath('rows.0.id', $ad->id);
        self::assertNotNull(
            $this->api('POST', "/nodes/{$ad->id}/trace", [])
                ->assertOk()
                ->json('goneAt'),
        );
        $this->api('POST', "/nodes/{$ad->id}/click")->assertStatus(404);
        $now = urlencode(now()->addMinute()->toIso8601String());
        self::assertNotNull(
            $this->api('GET', "/nodes/{$ad->id}/then?at={$now}")
                ->assertOk()
                ->json('goneAt'),
        );
        $differ = $this->api(
            'GET',
            "/accounts/{$account->id}/differences?from="
                .urlencode((string) $account->refresh()->known_since?->toIso8601String())
                ."&to={$now}",
        )->json('items');
        self::assertContains(
            [$ad->id, null],
            array_map(static fn (array $d): array => [$d['node'], $d['after']], $differ),
            'what it sent is sent no more',
        );
        self::assertNotContains(
            $ad->id,
            Change::query()
                ->findOrFail(
                    $this->api('POST', '/changes', [
                        'account' => $account->id,
                        'title' => 'Again',
                        'existing' => 'replace',
                        'carrier' => 'fewest',
                    ])->json('id'),
                )
                ->writes()
                ->pluck('node_id')
                ->all(),
        );

        $this->standins('/reset');
        $this->again($account);
        self::assertNull($ad->refresh()->gone_at, 'the same element, with its past');
        self::assertSame($ads, Node::query()->where('is_ad', true)->count());
        self::assertNotNull(
            Text::query()->findOrFail($texts[0]['id'])->until,
            'its text of then ended when it went',
        );
        self::assertSame(
            [],
            $this->api(
                'GET',
                "/nodes/{$ad->id}/then?at=".urlencode((string) now()->addMinute()->toIso8601String()),
            )->json('goneAt') ?? [],
        );
    }

    /** @return iterable<string, array{string, int}> */
    public static function notWhole(): iterable
    {
        yield 'empty pages' => ['empty', 9];
        yield 'one element less than announced' => ['short', 1];
        yield 'down half-way' => ['down', 3];
        yield 'nonsense half-way' => ['nonsense', 3];
    }

    #[DataProvider('notWhole')]
    public function test_an_import_that_is_not_whole_lets_nothing_go(string $kind, int $times): void
    {
        $account = $this->imported();
        $rows = fn (): array => DB::table('nodes')
            ->orderBy('id')
            ->get(['id', 'parent_id', 'name', 'gone_at'])
            ->map(static fn (object $r): array => (array) $r)
            ->all();
        [$nodes, $texts] = [$rows(), DB::table('texts')->get()->all()];
        $this->order($kind, $times);
        $import = $this->again($account);

        self::assertEquals([$nodes, $texts], [$rows(), DB::table('texts')->get()->all()]);
        $said = $kind === 'down' || $kind === 'nonsense' ? $import->problem : $import->notes;
        self::assertStringContainsString(
            $kind === 'empty' || $kind === 'short' ? 'is kept as it was; import again' : 'Northquay Search',
            (string) $said,
        );
    }

    public function test_an_account_that_is_not_listed_any_more_stays_and_is_said(): void
    {
        $account = $this->imported();
        $account->link->update(['only_accounts' => 'NQ-none']);
        self::assertStringContainsString(
            "does not list {$account->name} any more",
            (string) $this->again($account)->notes,
        );
        self::assertSame(852, Node::query()->count());
    }

    public function test_an_element_without_what_it_stands_under_is_set_apart_and_said(): void
    {
        $account = $this->imported();
        $this->planned();
        $group = Node::query()->where('level', 'group')->orderBy('position')->firstOrFail();
        $ads = Node::query()->where('parent_id', $group->id)->count();
        $this->edit($group->external_id, ['remove' => true]);
        $import = $this->again($account);

        self::assertSame(ImportStatus::Done, $import->status, (string) $import->problem);
        self::assertStringContainsString(
            "{$ads} elements of {$account->name} could not be taken over",
            (string) $import->notes,
        );
        self::assertSame(0, Node::query()->whereNull('parent_id')->where('depth', '>', 0)->count());
        self::assertSame(
            $ads,
            Node::onlyTrashed()->where('parent_id', $group->id)->count(),
            'none hangs in the air',
        );
        $this->api('GET', '/accounts')->assertJsonPath('items.0.apart', $ads);
        $this->api('GET', "/accounts/{$account->id}/apart")
            ->assertJsonPath(
                'items.0.why',
                "the platform did not deliver what it stands under ({$group->external_id})",
            )
            ->assertJsonCount($ads, 'items');
        $this->api('GET', "/accounts/{$account->id}/rows")->assertOk();
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function misfits(): iterable
    {
        yield 'a text over 64 KB' => [
            ['slots' => ['landing' => 'https://velmar.example/'.str_repeat('a', 66_000)]],
            'its landing has 66,023 bytes; at most 65,535 can be kept',
        ];
        yield 'a long name of a custom parameter' => [
            ['custom' => [str_repeat('n', 200) => 'x']],
            'has a name of more than 191 characters',
        ];
        yield 'a long type' => [['type' => str_repeat('t', 65)], 'its type has more than 64 characters'];
        yield 'an unknown standing' => [['standing' => 'asleep'], 'the platform says that it is “asleep”'];
    }

    #[DataProvider('misfits')]
    public function test_what_can_not_be_kept_is_set_apart_with_the_reason(array $set, string $why): void
    {
        $account = $this->imported();
        $ad = $this->ad($account);
        $this->edit($ad->external_id, ['set' => $set]);
        $import = $this->again($account);

        self::assertSame(ImportStatus::Done, $import->status, (string) $import->problem);
        self::assertStringContainsString(
            $why,
            $this->api('GET', "/accounts/{$account->id}/apart")->json('items.0.why'),
        );
        self::assertNotNull(Node::withTrashed()->findOrFail($ad->id)->gone_at);
    }

    public function test_ids_that_differ_by_case_are_two_elements(): void
    {
        $account = $this->imported();
        $ad = $this->ad($account);
        $other = Node::query()
            ->where(['parent_id' => $ad->parent_id])
            ->whereKeyNot($ad->id)
            ->firstOrFail();
        $this->edit($ad->external_id, ['set' => ['id' => 'AdX']]);
        $this->edit($other->external_id, ['set' => ['id' => 'adx']]);
        $this->again($account);

        self::assertSame(
            ['AdX', 'adx'],
            Node::query()
                ->whereIn('external_id', ['AdX', 'adx'])
                ->orderBy('external_id')
                ->pluck('external_id')
                ->all(),
        );
        self::assertSame(852, Node::query()->count());
    }

    /** An import that was answered before we wrote, and takes over after it, does not put the old text back. */
    public function test_what_was_written_while_the_platform_answered_stays(): void
    {
        $account = $this->imported();
        $ad = $this->ad($account);
        $old = Text::query()
            ->where(['node_id' => $ad->id, 'kind' => 'landing'])
            ->whereNull('until')
            ->firstOrFail()->text;
        $asked = CarbonImmutable::now();
        usleep(2000);
        LiveTexts::set($ad->id, 'landing', '', 'https://velmar.example/new');
        LiveTexts::sync(
            [$ad->id => new RemoteNode($ad->external_id, null, 'ad', 'Ad', null, 1, ['landing' => $old], [], [])],
            $asked,
        );
        self::assertSame(
            ['https://velmar.example/new'],
            Text::query()
                ->where(['node_id' => $ad->id, 'kind' => 'landing'])
                ->whereNull('until')
                ->pluck('text')
                ->all(),
        );

        usleep(2000);
        LiveTexts::set($ad->id, 'landing', '', null);
        LiveTexts::sync(
            [
                $ad->id => new RemoteNode(
                    $ad->external_id,
                    null,
                    'ad',
                    'Ad',
                    null,
                    1,
                    ['landing' => 'https://velmar.example/new'],
                    [],
                    [],
                ),
            ],
            $asked,
        );
        self::assertSame(
            0,
            Text::query()
                ->where(['node_id' => $ad->id, 'kind' => 'landing'])
                ->whereNull('until')
                ->count(),
        );
    }
}
