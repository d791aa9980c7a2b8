<?php

namespace Tests\Feature;

use App\Models\Client;
use App\Models\Finding;
use App\Models\Node;
use App\Models\Role;
use Illuminate\Support\Facades\Route;
use Tests\TestCase;

/** Who may see and do what. */
final class AccessTest extends TestCase
{
    public function test_a_wrong_password_is_refused_and_says_so(): void
    {
        $this->postJson('/api/v1/session', ['email' => $this->editor->email, 'password' => 'Tide-table'], ['Origin' => config('app.url')])
            ->assertStatus(422)->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'password is wrong'));
        $this->getJson('/api/v1/session')->assertStatus(401)->assertJsonPath('message', 'Your session has ended. Sign in again; what you typed is still here.');
    }

    public function test_every_call_for_a_client_asks_who_it_is_and_whether_the_client_is_theirs(): void
    {
        $account = $this->imported();
        $this->planned();
        $other = Client::query()->create(['name' => 'Ninefold', 'slug' => 'ninefold']);
        $stranger = $this->member(Role::Owner, $other);
        $change = $this->client->changes()->create(['account_id' => $account->id, 'title' => 't', 'reason' => '', 'status' => 'ready', 'plan_revision' => 1, 'policy' => [], 'user_id' => $this->editor->id]);
        $node = Node::query()->where('is_ad', true)->firstOrFail();
        $finding = Finding::query()->where('account_id', $account->id)->firstOrFail();
        $ids = ['{finding}' => $finding->id, '{dialect}' => 'mossfeed', '{client}' => $this->client->id, '{account}' => $account->id, '{node}' => $node->id, '{change}' => $change->id, '{connection}' => $account->connection_id];
        $tried = 0;
        foreach (Route::getRoutes() as $route) {
            if (! str_contains($route->uri(), '{client}')) {
                continue;
            }
            foreach (array_diff($route->methods(), ['HEAD']) as $method) {
                $this->app['auth']->forgetGuards();
                $this->json($method, '/'.strtr($route->uri(), $ids))->assertStatus(401);
                $this->actingAs($stranger)->json($method, '/'.strtr($route->uri(), $ids))->assertStatus(404);
                // their own client in the address, things of ours behind it
                if (preg_match('/\{(account|node|change|connection|finding)\}/', $route->uri()) === 1) {
                    $this->actingAs($stranger)->json($method, '/'.strtr($route->uri(), ['{client}' => $other->id] + $ids))->assertStatus(404);
                }
                $tried++;
            }
        }
        self::assertGreaterThan(15, $tried);
    }

    public function test_a_viewer_reads_and_changes_nothing(): void
    {
        $account = $this->imported();
        $this->planned();
        $viewer = $this->member(Role::Viewer, $this->client);
        $this->api('GET', '/accounts', [], $viewer)->assertOk();
        $this->api('PUT', '/plan', ['revision' => 1, 'document' => self::PLAN], $viewer)->assertStatus(403);
        $this->api('POST', '/changes', ['account' => $account->id, 'title' => 't', 'existing' => 'keep', 'carrier' => 'fewest'], $viewer)->assertStatus(403);
        $this->api('PUT', '/platforms', ['text' => '{}', 'revision' => 0], $viewer)->assertStatus(403);
        $this->api('POST', '/findings/'.Finding::query()->firstOrFail()->id.'/change', [], $viewer)->assertStatus(403);
        $this->api('POST', "/connections/{$account->connection_id}/imports", [], $viewer)->assertStatus(403)->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'viewer'));
    }

    public function test_signing_in_asks_for_a_token_against_forged_requests(): void
    {
        $this->app['env'] = 'production'; // the framework waives the token in its test environment
        $this->postJson('/api/v1/session', ['email' => $this->editor->email, 'password' => 'tide-table'], ['Origin' => config('app.url')])->assertStatus(419);
    }
}
