<?php

namespace Tests\Feature;

use App\Http\Middleware\FreshSession;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Finding;
use App\Models\Import;
use App\Models\Node;
use App\Models\OutsideChange;
use App\Models\Role;
use App\SignIn\Totp;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;
use Illuminate\Support\Facades\Password;
use Illuminate\Testing\TestResponse;
use Tests\Contract;
use Tests\ContractOfAgreements;
use Tests\SheetMapOf;
use Tests\TestCase;

/** Every answer is as the published document says. */
final class ContractTest extends TestCase
{
    use ContractOfAgreements;

    private const C = '/clients/{client}';

    private function contractOfPeople(): void
    {
        $owner = $this->member(Role::Owner, $this->client);
        $own = fn (string $method, string $path, array $body = []) => $this->api($method, $path, $body, $owner);
        Contract::holds($own('GET', '/'), 'get', self::C);
        $data = ['name' => 'Velmar Ferries', 'timeZone' => 'UTC', 'currency' => 'EUR'];
        Contract::holds($own('PUT', '/', $data), 'put', self::C);
        Contract::holds($this->actingAs($owner)->postJson('/api/v1/clients', $data), 'post', '/clients');
        Contract::holds($own('GET', '/people'), 'get', self::C.'/people');
        $member = $this->member(Role::Viewer, $this->client);
        $at = self::C.'/people/{member}';
        Contract::holds($own('PUT', "/people/{$member->id}", ['role' => 'editor']), 'put', $at);
        Contract::holds($own('DELETE', "/people/{$member->id}"), 'delete', $at);
        $invited = static fn (string $email): array => ['email' => $email, 'role' => 'viewer'];
        $invitation = $own('POST', '/invitations', $invited('a@x.example'));
        Contract::holds($invitation, 'post', self::C.'/invitations');
        $at = self::C.'/invitations/{invitation}';
        Contract::holds($own('DELETE', "/invitations/{$invitation->json('id')}"), 'delete', $at);
        $token = static fn (TestResponse $made): array => ['token' => explode('#', $made->json('link'))[1]];
        $join = $token($own('POST', '/invitations', $invited($member->email)));
        $door = fn (string $path, array $body): TestResponse => $this->postJson(
            "/api/v1/invitations/{$path}",
            $body,
            ['Origin' => config('app.url')],
        );
        $this->app['auth']->forgetGuards();
        $this->flushSession(); // another person sits down
        Contract::holds($door('look', $join), 'post', '/invitations/look');
        $this->actingAs($member);
        Contract::holds($door('join', $join), 'post', '/invitations/join');
        $new = ['name' => 'B', 'email' => 'b@x.example', 'password' => 'a long enough one'];
        $accept = $token($own('POST', '/invitations', $invited('b@x.example'))) + $new;
        Contract::holds($door('accept', $accept), 'post', '/invitations/accept');
    }

    private function intakesKeepTheContract(): void
    {
        $at = self::C.'/intakes/{intake}';
        $new = ['dialect' => 'mossfeed', 'number' => 'M-900', 'name' => 'Moss'];
        $intake = $this->api('POST', '/intakes', $new);
        Contract::holds($intake, 'post', self::C.'/intakes');
        $path = '/intakes/'.$intake->json('id');
        foreach (["Campaign id,Item id,Item,Link\n7,1,x,https://v.example\n,2,y,\n", "\x89PNG"] as $i => $content) {
            $file = $this->api('POST', "{$path}/files", ['name' => "{$i}.csv", 'bytes' => strlen($content)]);
            Contract::holds($file, 'post', "{$at}/files");
            $part = ['from' => 0, 'content' => base64_encode($content)];
            Contract::holds($this->api('PUT', "{$path}/files/{$file->json('id')}", $part), 'put', "{$at}/files/{file}");
        }
        Contract::holds($this->api('GET', $path), 'get', $at);
        $removed = $this->api('DELETE', "{$path}/files/{$file->json('id')}");
        Contract::holds($removed, 'delete', "{$at}/files/{file}");
        Contract::holds($this->api('GET', '/intakes'), 'get', self::C.'/intakes');
        $look = ['revision' => $removed->json('revision'), 'title' => '0', 'headingRow' => 1];
        $looked = $this->api('PUT', "{$path}/look", $look + ['delimiter' => ',', 'encoding' => null]);
        Contract::holds($looked, 'put', "{$at}/look");
        $columns = [
            ['heading' => 'Campaign id', 'means' => 'campaign.id'],
            ['heading' => 'Item id', 'means' => 'id'],
            ['heading' => 'Link', 'means' => 'slot.landing'],
        ];
        $reading = $this->api('PUT', "{$path}/reading", [
            'revision' => $looked->json('revision'),
            'title' => 'm',
            'tables' => [['title' => '0', 'use' => true, 'level' => 'item', 'columns' => $columns]],
        ]);
        Contract::holds($reading, 'put', "{$at}/reading");
        self::assertSame(['no-parent' => 1], $reading->json('counts.problems'));
        Contract::holds($this->api('GET', "{$path}/problems"), 'get', "{$at}/problems");
        Contract::holds($this->api('GET', "{$path}/problems/file?as=csv"), 'get', "{$at}/problems/file");
        $import = $this->api('POST', "{$path}/import", ['revision' => $reading->json('revision'), 'whole' => []]);
        Contract::holds($import, 'post', "{$at}/import");
        $change = $this->api('POST', '/changes', [
            'account' => $import->json('account'),
            'title' => 'x',
            'texts' => [
                [
                    'node' => Node::query()->where(['external_id' => '1', 'level' => 'item'])->value('id'),
                    'slot' => 'landing',
                    'text' => 'https://v.example/?a=1',
                ],
            ],
        ])->json('id');
        $this->api('POST', "/changes/{$change}/application")->assertStatus(202);
        $taken = $this->api('POST', "/changes/{$change}/sheet/taken");
        Contract::holds($taken, 'post', self::C.'/changes/{change}/sheet/taken');
        $other = $this->api('POST', '/intakes', ['number' => 'M-901'] + $new)->json('id');
        Contract::holds($this->api('DELETE', "/intakes/{$other}"), 'delete', $at);
    }

    private function contractOfConnections(): void
    {
        config(['platforms.adapters.hosts' => ['adapter.localhost'], 'platforms.near' => ['adapter.localhost:1']]);
        Http::fake(['adapter.localhost:1/*' => Http::response(['items' => [], 'testClicks' => false])]);
        $owner = $this->member(Role::Owner, $this->client);
        $told = ['title' => 'a', 'dialect' => 'mossfeed', 'address' => 'http://adapter.localhost:1', 'token' => 't'];
        $made = $this->api('POST', '/connections', $told, $owner);
        Contract::holds($made, 'post', self::C.'/connections');
        $gone = $this->api('DELETE', "/connections/{$made->json('id')}", [], $owner);
        Contract::holds($gone, 'delete', self::C.'/connections/{connection}');
    }

    private function contractOfLearning(string $text): void
    {
        $at = self::C.'/platforms';
        $pasted = ['text' => "[id]\tid of the campaign\n[go]\tlanding page\n[x]\t"];
        Contract::holds($this->api('POST', '/platforms/placeholders', $pasted), 'post', "{$at}/placeholders");
        $nodes = [['level' => 'account', 'slots' => ['suffix' => 'a=1']], ['level' => 'campaign', 'type' => 'content']];
        $nodes[] = ['level' => 'teaser', 'slots' => ['landing' => 'https://v.example/']];
        foreach (['https://v.example/?a=1&rrcid=8', 'https://v.example/?b=1'] as $url) {
            $told = $this->api('POST', '/platforms/explanation', ['text' => $text, 'nodes' => $nodes, 'url' => $url]);
            Contract::holds($told, 'post', "{$at}/explanation");
        }
        $weighed = $this->api('POST', '/platforms/consequences', ['text' => $text]);
        Contract::holds($weighed, 'post', "{$at}/consequences");
    }

    private function contractOfTrackers(): void
    {
        $told = ['host' => 'go.x.example', 'parameter' => 'to', 'forwards' => true, 'adds' => []];
        $at = self::C.'/trackers';
        $made = $this->api('POST', '/trackers', $told + ['revision' => 0]);
        Contract::holds($made, 'post', $at);
        Contract::holds($this->api('GET', '/trackers'), 'get', $at);
        $trial = $this->api('POST', '/trackers/trial', $told + ['url' => 'https://go.x.example/?to=https://v.example']);
        Contract::holds($trial, 'post', "{$at}/trial");
        $one = "/trackers/{$made->json('id')}";
        Contract::holds($this->api('PUT', $one, $told + ['revision' => 1]), 'put', "{$at}/{tracker}");
        Contract::holds($this->api('DELETE', $one), 'delete', "{$at}/{tracker}");
    }

    private function contractOfOutside(int $account, int $connection, Node $ad): void
    {
        $one = OutsideChange::query()->create([
            'account_id' => $account,
            'node_id' => $ad->id,
            'import_id' => Import::query()->firstOrFail()->id,
            'kind' => 'landing',
            'before' => 'https://v.example/before',
            'after' => 'https://v.example/after',
            'found_at' => now(),
        ]);
        $items = ['items' => [$one->id]];
        $at = self::C.'/accounts/{account}/outside';
        $call = fn (string $method, string $path) => $this->api($method, "/accounts/{$account}/outside{$path}", $items);
        Contract::holds($this->api('GET', '/outside'), 'get', self::C.'/outside');
        $agreed = $this->api('GET', "/outside/{$one->id}/agreement");
        Contract::holds($agreed, 'get', self::C.'/outside/{outsideChange}/agreement');
        Contract::holds($call('POST', '/acceptance'), 'post', "{$at}/acceptance");
        Contract::holds($this->api('GET', '/outside?decided=1'), 'get', self::C.'/outside');
        Contract::holds($call('DELETE', '/acceptance'), 'delete', "{$at}/acceptance");
        Contract::holds($call('POST', '/return'), 'post', "{$at}/return");
        $daily = ['everyHours' => 24, 'quietFrom' => 22, 'quietUntil' => 6];
        $schedule = $this->api('PUT', "/connections/{$connection}/schedule", $daily);
        Contract::holds($schedule, 'put', self::C.'/connections/{connection}/schedule');
    }

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

    /** @param array<string, string> $here */
    private function contractOfThePerson(array $here): void
    {
        $this->app['auth']->forgetGuards(); // who was signed in before is not who asks now
        $this->actingAs($this->editor)->withSession([FreshSession::SINCE => now()->timestamp]);
        Contract::holds($this->getJson('/api/v1/person', $here), 'get', '/person');
        $begun = $this->postJson('/api/v1/person/second-factor', [], $here);
        Contract::holds($begun, 'post', '/person/second-factor');
        $secret = self::fromBase32($begun->json('secret'));
        $code = static fn (): string => (new Totp($secret))->code(Totp::step((int) now()->timestamp));
        Contract::holds(
            $this->putJson(
                '/api/v1/person/second-factor',
                ['code' => $code(), 'password' => 'tide-table'],
                $here,
            ),
            'put',
            '/person/second-factor',
        );
        $this->travel(1)->minutes(); // no code is taken twice
        $this->app['auth']->forgetGuards();
        $this->flushSession();
        $this->postJson(
            '/api/v1/session',
            ['email' => $this->editor->email, 'password' => 'tide-table'],
            $here,
        )->assertExactJson(['needs' => 'code']);
        Contract::holds(
            $this->postJson('/api/v1/session/code', ['code' => $code()], $here),
            'post',
            '/session/code',
        );
        Contract::holds(
            $this->deleteJson(
                '/api/v1/person/second-factor',
                ['password' => 'tide-table'],
                $here,
            )->assertNoContent(),
            'delete',
            '/person/second-factor',
        );
        Contract::holds(
            $this->deleteJson('/api/v1/person/sessions', [], $here)->assertOk(),
            'delete',
            '/person/sessions',
        );
        DB::table('sessions')->insert([
            'id' => 'elsewhere',
            'user_id' => $this->editor->id,
            'payload' => '',
            'last_activity' => time(),
        ]);
        $elsewhere = substr(hash('sha256', 'elsewhere'), 0, 32);
        Contract::holds(
            $this->deleteJson("/api/v1/person/sessions/{$elsewhere}", [], $here),
            'delete',
            '/person/sessions/{session}',
        );
        Contract::holds(
            $this->putJson(
                '/api/v1/person/password',
                ['current' => 'tide-table', 'password' => 'another tide table'],
                $here,
            )->assertOk(),
            'put',
            '/person/password',
        );
        Contract::holds(
            $this->postJson('/api/v1/password/forgotten', ['email' => $this->editor->email], $here),
            'post',
            '/password/forgotten',
        );
        $token = Password::broker()->createToken($this->editor);
        Contract::holds(
            $this->postJson(
                '/api/v1/password/reset',
                ['email' => $this->editor->email, 'token' => $token, 'password' => 'a third tide table'],
                $here,
            ),
            'post',
            '/password/reset',
        );
    }
}
