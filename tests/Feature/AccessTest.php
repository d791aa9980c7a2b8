<?php

namespace Tests\Feature;

use App\Models\Change;
use App\Models\ChangeWrite;
use App\Models\Client;
use App\Models\Finding;
use App\Models\Node;
use App\Models\Plan;
use App\Models\Role;
use App\Models\User;
use Illuminate\Support\Facades\Route;
use Tests\EveryCall;
use Tests\TestCase;

/** Who may see and do what. */
final class AccessTest extends TestCase
{
    use EveryCall;

    public function test_a_wrong_password_is_refused_and_says_so(): void
    {
        $this->postJson(
            '/api/v1/session',
            ['email' => $this->editor->email, 'password' => 'Tide-table'],
            ['Origin' => config('app.url')],
        )
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'password is wrong'));
        $this->getJson('/api/v1/session')
            ->assertStatus(401)
            ->assertJsonPath('message', 'Your session has ended. Sign in again; what you typed is still here.');
    }

    public function test_every_call_for_a_client_asks_who_it_is_and_whether_all_of_it_is_theirs(): void
    {
        $things = $this->things();
        config(['limits.stranger' => 100_000, 'limits.person' => 100_000, 'limits.heavy' => 100_000]);
        $other = Client::factory()->create();
        $stranger = $this->member(Role::Owner, $other);
        foreach (self::calls() as [$method, $pattern]) {
            preg_match_all('/\{(\w+)\}/', $pattern, $places);
            self::assertSame(
                [],
                array_diff($places[0], array_keys($things)),
                "{$pattern} has a place that this test has nothing for",
            );
            $this->app['auth']->forgetGuards();
            $this->json($method, strtr($pattern, $things))->assertStatus(401);
            $this->actingAs($stranger)->json($method, strtr($pattern, $things))->assertStatus(404);
            // their own client in the address, a thing of ours behind it; kinds and revisions are nobody's
            if (array_diff($places[0], ['{client}', '{kind}', '{revision}']) !== []) {
                $this->actingAs($stranger)
                    ->json($method, strtr($pattern, ['{client}' => $other->id] + $things))
                    ->assertStatus(404);
            }
        }
        self::assertGreaterThan(50, count(self::calls()));
    }

    /** A route that is added and not scoped to its client can't be bound: it fails, it does not leak. */
    public function test_what_is_not_bound_through_the_client_is_not_bound(): void
    {
        $things = $this->things();
        $other = Client::factory()->create();
        $stranger = $this->member(Role::Owner, $other);
        Route::middleware(['api', 'auth:sanctum', 'can:view,client'])
            ->scopeBindings()
            ->get('api/v1/clients/{client}/plans/{plan}', fn (Client $client, Plan $plan) => $plan->document);
        Route::middleware(['api', 'auth:sanctum', 'can:view,client'])
            ->scopeBindings()
            ->get('api/v1/clients/{client}/users/{user}', fn (Client $client, User $user) => $user->email);
        $plan = Plan::query()->firstOrFail();
        $this->actingAs($stranger)
            ->getJson("/api/v1/clients/{$other->id}/plans/{$plan->id}")
            ->assertStatus(404);
        self::assertGreaterThanOrEqual(
            400,
            $this->actingAs($stranger)
                ->getJson("/api/v1/clients/{$other->id}/users/{$this->editor->id}")
                ->status(),
        );
        self::assertNotSame([], $things);
    }

    /** Foreign numbers in bodies and queries are refused as if there were no such thing. */
    public function test_foreign_things_in_bodies_are_refused(): void
    {
        $theirs = $this->things();
        $write = ChangeWrite::query()->create([
            'change_id' => $theirs['{change}'],
            'position' => 0,
            'node_id' => $theirs['{node}'],
            'kind' => 'suffix',
        ]);
        $ours = Client::factory()->create();
        $owner = $this->member(Role::Owner, $ours);
        $this->client = $ours;
        $this->planned();
        $mine = [$this->imported('NQ-2077')];
        $node = Node::query()
            ->where(['account_id' => $mine[0]->id, 'is_ad' => true])
            ->firstOrFail()->id;
        $change = Change::factory()->of($mine[0])->create(['user_id' => $this->editor->id]);
        $draft = ['account' => $mine[0]->id, 'title' => 't', 'existing' => 'keep', 'carrier' => 'fewest'];
        $what = ['kind' => 'replace', 'slots' => ['suffix'], 'find' => 'a'];
        $foreign = [
            ['POST', '/changes', ['account' => $theirs['{account}']] + $draft],
            ['POST', '/changes', $draft + ['over' => ['nodes' => [$theirs['{node}']]]]],
            ['POST', '/changes', $draft + ['filter' => $theirs['{filter}']]],
            [
                'POST',
                '/changes',
                [
                    'account' => $mine[0]->id,
                    'title' => 't',
                    'texts' => [['node' => $theirs['{node}'], 'slot' => 'suffix', 'text' => 'a']],
                ],
            ],
            ['POST', "/changes/{$change->id}/looks", ['node' => $theirs['{node}'], 'draft' => 1]],
            ['POST', "/changes/{$change->id}/reversal", ['writes' => [$write->id]]],
            [
                'POST',
                "/accounts/{$mine[0]->id}/edits",
                ['over' => ['nodes' => [$theirs['{node}']]], 'what' => $what],
            ],
            [
                'POST',
                "/accounts/{$mine[0]->id}/edits",
                [
                    'over' => (object) [],
                    'what' => ['kind' => 'copy', 'from' => $theirs['{node}'], 'slots' => ['suffix']],
                ],
            ],
            ['POST', '/filters', ['name' => 'f', 'account' => $theirs['{account}'], 'filter' => (object) []]],
            [
                'POST',
                '/filters',
                ['name' => 'f', 'account' => $mine[0]->id, 'filter' => ['nodes' => [$theirs['{node}']]]],
            ],
            [
                'POST',
                "/changes/{$change->id}/sheet",
                ['map' => $theirs['{sheetMap}'], 'name' => 'x.csv', 'content' => 'YQ=='],
            ],
            ['GET', "/changes/{$change->id}/sheet?map={$theirs['{sheetMap}']}&as=csv", []],
            [
                'POST',
                "/nodes/{$node}/trace",
                ['texts' => [['node' => $theirs['{node}'], 'slot' => 'suffix', 'text' => 'a']]],
            ],
            ['GET', "/accounts/{$mine[0]->id}/rows?parent={$theirs['{node}']}", []],
            ['GET', "/accounts/{$mine[0]->id}/rows?under={$theirs['{node}']}", []],
            ['GET', "/accounts/{$mine[0]->id}/picture?root={$theirs['{node}']}", []],
            ['GET', "/ledger?account={$theirs['{account}']}", []],
            ['GET', "/ledger?change={$theirs['{change}']}", []],
            ['GET', "/ledger?node={$theirs['{node}']}", []],
        ];
        foreach ($foreign as [$method, $path, $body]) {
            $answer = $this->api($method, $path, $body, $owner);
            self::assertSame(
                [422, true],
                [$answer->status(), str_contains((string) $answer->json('message'), 'There is no such')],
                "{$method} {$path}: ".substr((string) $answer->getContent(), 0, 200),
            );
        }
    }

    public function test_a_viewer_reads_and_changes_nothing(): void
    {
        $account = $this->imported();
        $this->planned();
        $viewer = $this->member(Role::Viewer, $this->client);
        $this->api('GET', '/accounts', [], $viewer)->assertOk();
        $this->api('PUT', '/plan', ['revision' => 1, 'document' => self::PLAN], $viewer)->assertStatus(403);
        $this->api(
            'POST',
            '/changes',
            ['account' => $account->id, 'title' => 't', 'existing' => 'keep', 'carrier' => 'fewest'],
            $viewer,
        )->assertStatus(403);
        $this->api('PUT', '/platforms', ['text' => '{}', 'revision' => 0], $viewer)->assertStatus(403);
        $this->api(
            'POST',
            '/findings/'.Finding::query()->firstOrFail()->id.'/change',
            [],
            $viewer,
        )->assertStatus(403);
        $this->api('POST', "/connections/{$account->connection_id}/imports", [], $viewer)
            ->assertStatus(403)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'viewer'));
    }

    public function test_signing_in_asks_for_a_token_against_forged_requests(): void
    {
        $this->app['env'] = 'production'; // the framework waives the token in its test environment
        $this->postJson(
            '/api/v1/session',
            ['email' => $this->editor->email, 'password' => 'tide-table'],
            ['Origin' => config('app.url')],
        )->assertStatus(419);
    }
}
