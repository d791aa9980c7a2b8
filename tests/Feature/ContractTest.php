<?php

namespace Tests\Feature;

use App\Http\Middleware\FreshSession;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Finding;
use App\Models\Node;
use App\Models\Role;
use Tests\Contract;
use Tests\ContractOfAccounts;
use Tests\ContractOfAgreements;
use Tests\ContractOfPeople;
use Tests\ContractOfWatching;
use Tests\SheetMapOf;
use Tests\TestCase;

/** Every answer is as the published document says. */
final class ContractTest extends TestCase
{
    use ContractOfAccounts;
    use ContractOfAgreements;
    use ContractOfPeople;
    use ContractOfWatching;

    private const C = '/clients/{client}';

    public function test_every_call_keeps_the_contract(): void
    {
        $account = $this->imported();
        Contract::holds($this->actingAs($this->editor)->getJson('/api/v1/session'), 'get', '/session');
        Contract::holds($this->api('GET', '/plan'), 'get', self::C.'/plan');
        $saved = $this->api('PUT', '/plan', ['revision' => 0, 'document' => self::PLAN]);
        self::assertSame(1, $saved->json('revision'));
        Contract::holds($saved, 'put', self::C.'/plan');
        $preview = $this->api('POST', '/plan/preview', ['document' => self::PLAN]);
        self::assertCount(3, $preview->json('samples'));
        Contract::holds($preview, 'post', self::C.'/plan/preview');
        Contract::holds($this->api('GET', '/plan/advice'), 'get', self::C.'/plan/advice');
        Contract::holds($this->api('GET', '/connections'), 'get', self::C.'/connections');
        $this->intakesKeepTheContract();
        Contract::holds($this->api('GET', '/running'), 'get', self::C.'/running');
        Contract::holds($this->api('GET', '/accounts')->assertOk(), 'get', self::C.'/accounts');

        $ad = Node::query()->where('is_ad', true)->orderBy('id')->firstOrFail();
        foreach (
            ['', "?parent={$ad->parent_id}", '?q=trailer', '?state=broken&limit=5', "?q={$ad->external_id}"] as $query
        ) {
            $rows = $this->api('GET', "/accounts/{$account->id}/rows{$query}");
            self::assertNotEmpty($rows->json('rows'), $query);
            Contract::holds($rows, 'get', self::C.'/accounts/{account}/rows');
        }
        Contract::holds($this->api('GET', "/nodes/{$ad->id}"), 'get', self::C.'/nodes/{node}');
        Contract::holds(
            $this->api('POST', "/nodes/{$ad->id}/trace", [
                'context' => ['device' => 'tablet'],
                'texts' => [['node' => $ad->id, 'slot' => 'suffix', 'text' => 'a=1']],
            ]),
            'post',
            self::C.'/nodes/{node}/trace',
        );
        $this->contractOfTrackers();
        $this->contractOfOutside($account->id, $account->connection_id, $ad);
        $findings = $this->api('GET', "/accounts/{$account->id}/findings");
        self::assertNotEmpty($findings->json('items'));
        Contract::holds($findings, 'get', self::C.'/accounts/{account}/findings');
        $picture = $this->api('GET', "/accounts/{$account->id}/picture");
        self::assertGreaterThan(20, count($picture->json('items')));
        Contract::holds($picture, 'get', self::C.'/accounts/{account}/picture');
        Contract::holds($this->api('GET', '/platforms'), 'get', self::C.'/platforms');
        foreach (array_column($this->api('GET', '/platforms')->json('items'), 'id') as $id) {
            Contract::holds($this->api('GET', "/platforms/{$id}"), 'get', self::C.'/platforms/{dialect}');
        }
        $file = $this->api('GET', '/platforms/reedrail/file?as=yaml')->assertOk();
        Contract::holds($file, 'get', self::C.'/platforms/{dialect}/file');
        $text = $file->getContent();
        $trial = $this->api('POST', '/platforms/trial', [
            'text' => $text,
            'nodes' => [
                ['level' => 'account', 'slots' => ['suffix' => 'a=(:teaser:)&b=(:nope:)']],
                ['level' => 'campaign', 'type' => 'content'],
                ['level' => 'teaser', 'slots' => ['landing' => 'https://v.example/']],
            ],
            'context' => ['click.id' => 'Q'],
        ]);
        self::assertSame('https://v.example/?a=7102&b=&rrcid=Q', $trial->json('click.clickUrl'));
        Contract::holds($trial, 'post', self::C.'/platforms/trial');
        Contract::holds(
            $this->api('POST', '/platforms/trial', ['text' => 'format: x']),
            'post',
            self::C.'/platforms/trial',
        );
        $this->contractOfLearning((string) $text);
        $own = $this->api('PUT', '/platforms', [
            'text' => str_replace('id: reedrail', 'id: ninth', (string) $text),
            'revision' => 0,
        ]);
        Contract::holds($own, 'put', self::C.'/platforms');
        self::assertSame([true, 1], [$own->json('own'), $own->json('revision')]);
        Contract::holds($this->api('DELETE', '/platforms/ninth'), 'delete', self::C.'/platforms/{dialect}');
        $found = $this->api('GET', '/search?q=Cold Ch');
        self::assertSame('Cold Chain', $found->json('nodes.0.name'));
        Contract::holds($found, 'get', self::C.'/search');

        $created = $this->api('POST', '/changes', [
            'account' => $account->id,
            'title' => 'In line',
            'existing' => 'replace',
            'carrier' => 'fewest',
        ]);
        Contract::holds($created, 'post', self::C.'/changes');
        $change = $created->json('id');
        Contract::holds($this->api('GET', '/changes'), 'get', self::C.'/changes');
        Contract::holds($this->api('GET', "/changes/{$change}"), 'get', self::C.'/changes/{change}');
        Contract::holds(
            $this->api('GET', "/changes/{$change}/writes"),
            'get',
            self::C.'/changes/{change}/writes',
        );
        foreach (['drop', 'again', 'together/application'] as $call) {
            Contract::holds(
                $this->api('POST', "/changes/{$change}/{$call}")->assertSuccessful(),
                'post',
                self::C."/changes/{change}/{$call}",
            );
        }
        Contract::holds(
            $this->api(
                'POST',
                "/changes/{$change}/refusal",
                ['why' => 'no'],
                $this->member(Role::Owner, $this->client),
            )->assertSuccessful(),
            'post',
            self::C.'/changes/{change}/refusal',
        );
        $this->api('POST', "/changes/{$change}/again");
        $campaign = Node::query()->where('account_id', $account->id)->whereNotNull('type')->value('id');
        Contract::holds(
            $this->api('GET', "/accounts/{$account->id}/sends?nodes[]={$campaign}"),
            'get',
            self::C.'/accounts/{account}/sends',
        );
        Contract::holds(
            $this->api('GET', "/accounts/{$account->id}/apart"),
            'get',
            self::C.'/accounts/{account}/apart',
        );
        $shown = $this->api('GET', "/changes/{$change}");
        Contract::holds(
            $this->api('POST', "/changes/{$change}/looks", [
                'node' => $shown->json('story.samples.0.node'),
                'draft' => $shown->json('draft'),
            ])->assertSuccessful(),
            'post',
            self::C.'/changes/{change}/looks',
        );
        $this->contractOfAnApproval($change);
        Contract::holds(
            $this->api('POST', "/changes/{$change}/application"),
            'post',
            self::C.'/changes/{change}/application',
        );
        $tried = $this->api('GET', "/changes/{$change}");
        self::assertSame(['tried', true], [$tried->json('status'), $tried->json('trial.ok')]);
        Contract::holds($tried, 'get', self::C.'/changes/{change}');
        Contract::holds(
            $this->api('POST', "/changes/{$change}/reversal"),
            'post',
            self::C.'/changes/{change}/reversal',
        );
        $fixable = Finding::query()->create([
            'account_id' => $account->id,
            'position' => 999,
            'code' => 'leading-mark',
            'severity' => 'note',
            'node_id' => $ad->id,
            'kind' => 'landing',
            'reason' => 'An example.',
            'fix_says' => 'write https',
            'fix_text' => 'https://v.example/',
            'count' => 1,
        ]);
        Contract::holds(
            $this->api('POST', "/findings/{$fixable->id}/change"),
            'post',
            self::C.'/findings/{finding}/change',
        );
        Contract::holds($this->api('GET', '/rules'), 'get', self::C.'/rules');
        Contract::holds(
            $this->api(
                'PUT',
                '/rules',
                ['needsApproval' => true, 'hosts' => ['a.example']],
                $this->member(Role::Owner, $this->client),
            ),
            'put',
            self::C.'/rules',
        );
        Contract::holds(
            $this->api('POST', "/nodes/{$ad->id}/click")->assertOk(),
            'post',
            self::C.'/nodes/{node}/click',
        );
        Contract::holds(
            $this->api('GET', "/nodes/{$ad->id}/then?at=".urlencode(now()->toIso8601String()))->assertOk(),
            'get',
            self::C.'/nodes/{node}/then',
        );
        $ledger = $this->api('GET', '/ledger');
        self::assertNotEmpty($ledger->json('items'));
        Contract::holds($ledger, 'get', self::C.'/ledger');
        Contract::holds(
            $this->api('GET', "/accounts/{$account->id}/differences?from=2020-01-01&to=2099-01-01"),
            'get',
            self::C.'/accounts/{account}/differences',
        );
        Contract::holds(
            $this->api('GET', "/accounts/{$account->id}/day?day=2026-11-01"),
            'get',
            self::C.'/accounts/{account}/day',
        );
        Contract::holds(
            $this->api('POST', "/accounts/{$account->id}/edits", [
                'over' => ['nodes' => [$ad->id]],
                'what' => ['kind' => 'remove', 'slots' => ['landing'], 'key' => 'lang'],
            ])->assertOk(),
            'post',
            self::C.'/accounts/{account}/edits',
        );
        $filter = $this->api('POST', '/filters', [
            'name' => 'f',
            'account' => $account->id,
            'filter' => ['state' => 'broken'],
        ]);
        Contract::holds($filter, 'post', self::C.'/filters');
        Contract::holds($this->api('GET', '/filters'), 'get', self::C.'/filters');
        Contract::holds(
            $this->api('DELETE', "/filters/{$filter->json('id')}"),
            'delete',
            self::C.'/filters/{filter}',
        );
        $this->contractOfPlans($account);
        $this->contractOfAgreements();
        $this->contractOfWatching();
        $suggested = $this->api('POST', '/sheet-maps/suggestion', [
            'dialect' => 'northquay-search',
            'headings' => ['Ad ID', 'Tracking template'],
        ]);
        Contract::holds($suggested, 'post', self::C.'/sheet-maps/suggestion');
        $map = $this->api('POST', '/sheet-maps', SheetMapOf::ads('northquay-search'));
        Contract::holds($map, 'post', self::C.'/sheet-maps');
        Contract::holds($this->api('GET', '/sheet-maps'), 'get', self::C.'/sheet-maps');
        $one = "/sheet-maps/{$map->json('id')}";
        Contract::holds($this->api('GET', $one), 'get', self::C.'/sheet-maps/{sheetMap}');
        Contract::holds($this->api('DELETE', $one), 'delete', self::C.'/sheet-maps/{sheetMap}');
        Contract::holds($this->api('GET', '/arrivals'), 'get', self::C.'/arrivals');
        Contract::holds($this->api('GET', '/arrivals/totals'), 'get', self::C.'/arrivals/totals');
        Contract::holds($this->api('GET', '/changes/999999'), 'get', self::C.'/changes/{change}');
        Contract::holds(
            $this->api('POST', "/connections/{$account->connection_id}/imports")->assertStatus(202),
            'post',
            self::C.'/connections/{connection}/imports',
        );
        $here = ['Origin' => config('app.url')];
        Contract::holds(
            $this->postJson(
                '/api/v1/session',
                ['email' => $this->editor->email, 'password' => 'tide-table'],
                $here,
            )->assertOk(),
            'post',
            '/session',
        );
        Contract::holds(
            $this->api('GET', '/audit', [], $this->member(Role::Owner, $this->client)),
            'get',
            self::C.'/audit',
        );
        $this->contractOfPeople();
        $this->contractOfWorkAtHand();
        $this->contractOfASheet();
        $this->contractOfThePerson($here);
        $this->contractOfConnections();
        $this->app['auth']->forgetGuards();
        $this->actingAs($this->editor->refresh())
            ->flushSession()
            ->withSession([FreshSession::SINCE => now()->timestamp]);
        Contract::holds($this->deleteJson('/api/v1/session', [], $here)->assertNoContent(), 'delete', '/session');
        self::assertSame([], Contract::notHeld(), 'every call of the document is held against it');
    }

    private function contractOfAnApproval(int $change): void
    {
        $this->client->update(['needs_approval' => true]);
        $reviewer = $this->member(Role::Reviewer, $this->client);
        $shown = $this->api('GET', "/changes/{$change}");
        foreach ($shown->json('story.samples') as $sample) {
            $this->api(
                'POST',
                "/changes/{$change}/looks",
                ['node' => $sample['node'], 'draft' => $shown->json('draft')],
                $reviewer,
            )->assertSuccessful();
        }
        Contract::holds(
            $this->api('POST', "/changes/{$change}/approval", ['draft' => $shown->json('draft')], $reviewer),
            'post',
            self::C.'/changes/{change}/approval',
        );
        $this->client->update(['needs_approval' => false]);
    }

    /** While a worker should be at it: held, gone on with, ended. */
    private function contractOfWorkAtHand(): void
    {
        $change = Change::query()->where('status', ChangeStatus::Tried)->firstOrFail();
        $change->update(['status' => ChangeStatus::Applying]);
        foreach (['pause', 'stop'] as $call) {
            Contract::holds(
                $this->api('POST', "/changes/{$change->id}/{$call}")->assertSuccessful(),
                'post',
                self::C."/changes/{change}/{$call}",
            );
        }
    }

    private function contractOfASheet(): void
    {
        $this->client->refresh()->update(['needs_approval' => false]);
        $account = $this->imported('OG-3', 'oldgate-portal', 'gate-4402');
        $account->link->update(['writes_by' => 'sheet']);
        $change = $this->api('POST', '/changes', [
            'account' => $account->id,
            'title' => 'In line',
            'existing' => 'replace',
            'carrier' => 'fewest',
        ])->json('id');
        $map = $this->api('POST', '/sheet-maps', SheetMapOf::ads('oldgate-portal'))->json('id');
        $begun = $this->api('POST', "/changes/{$change}/application");
        self::assertSame(202, $begun->status(), (string) $begun->getContent());
        $sheet = $this->api('GET', "/changes/{$change}/sheet?map={$map}&as=csv")->assertOk();
        $lines = array_filter(explode("\r\n", (string) $sheet->streamedContent()));
        $back = ["{$lines[0]},Outcome,Remark", ...array_map(
            static fn (string $line): string => "{$line},ok,",
            array_slice($lines, 1),
        )];
        Contract::holds(
            $this->api('POST', "/changes/{$change}/sheet", [
                'map' => $map,
                'name' => 'outcome.csv',
                'content' => base64_encode(implode("\r\n", $back)),
            ]),
            'post',
            self::C.'/changes/{change}/sheet',
        );
    }
}
