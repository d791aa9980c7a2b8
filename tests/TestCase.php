<?php

namespace Tests;

use App\Jobs\ImportAccounts;
use App\Models\Account;
use App\Models\Change;
use App\Models\Client;
use App\Models\Connection;
use App\Models\ImportStatus;
use App\Models\Role;
use App\Models\User;
use Illuminate\Foundation\Testing\RefreshDatabaseState;
use Illuminate\Foundation\Testing\TestCase as BaseTestCase;
use Illuminate\Support\Facades\Http;
use Illuminate\Testing\TestResponse;

/** A test of the application against its real database and the real stand-ins, over HTTP. */
abstract class TestCase extends BaseTestCase
{
    use EmptiesTables;

    public const PLAN = [
        'format' => 'vestigon.plan/1',
        'id' => 'p',
        'title' => 'Agreement',
        'clickId' => 'required',
        'parameters' => [
            ['key' => 'utm_source', 'parts' => [['text' => 'northquay']], 'required' => true],
            ['key' => 'utm_medium', 'parts' => [['text' => 'cpc']], 'required' => true],
            [
                'key' => 'utm_campaign',
                'parts' => [['field' => 'campaign.name']],
                'shape' => 'slug',
                'required' => true,
            ],
            [
                'key' => 'utm_term',
                'parts' => [['field' => 'keyword.text']],
                'fallback' => [[['field' => 'product.id']]],
            ],
            ['key' => 'utm_content', 'parts' => [['field' => 'ad.id']]],
        ],
    ];

    protected Client $client;

    protected User $editor;

    protected function setUp(): void
    {
        RefreshDatabaseState::$migrated = true; // ./vestigon test has migrated, as the owner
        parent::setUp();
        config(['platforms.retry_pause_ms' => 1, 'platforms.timeout' => 2.0]);
        $this->standins('/reset');
        $this->client = Client::factory()->create([
            'name' => 'Velmar Ferries',
            'slug' => 'velmar',
            'hosts' => ['velmar.localhost', 'ninefold.localhost', 'hopgate.localhost'],
        ]);
        $this->client->trackers()->createMany(config('demo.trackers'));
        $this->editor = $this->member(Role::Editor, $this->client);
    }

    protected function member(Role $role, Client $client): User
    {
        return User::factory()->memberOf($client, $role)->create()->refresh();
    }

    /** The smaller of the demo's Northquay accounts, or another one, imported. */
    protected function imported(
        string $only = 'NQ-2077',
        string $dialect = 'northquay-search',
        string $secret = 'quay-7731',
        string $customer = 'saltmarsh-row',
    ): Account {
        $connection = Connection::query()->create([
            'client_id' => $this->client->id,
            'dialect' => $dialect,
            'title' => config("platforms.ads.{$dialect}.title"),
            'credentials' => ['client' => $customer, 'secret' => $secret],
            'only_accounts' => $only,
        ]);
        $import = $this->client->imports()->create([
            'connection_id' => $connection->id,
            'status' => ImportStatus::Queued,
        ]);
        ImportAccounts::dispatchSync($import->id);
        self::assertSame(ImportStatus::Done, $import->refresh()->status, (string) $import->problem);

        return Account::query()
            ->where(['connection_id' => $connection->id, 'external_id' => $only])
            ->firstOrFail();
    }

    protected function planned(): void
    {
        $this->client
            ->plans()
            ->create(['revision' => 1, 'document' => self::PLAN, 'user_id' => $this->editor->id]);
    }

    /** A change that brings an account in line with the plan, worked out. */
    protected function inLine(Account $account): Change
    {
        return Change::query()->findOrFail(
            $this->api('POST', '/changes', [
                'account' => $account->id,
                'title' => 'In line',
                'existing' => 'replace',
                'carrier' => 'fewest',
            ])
                ->assertStatus(202)
                ->json('id'),
        );
    }

    /**
     * @param array<string, mixed> $body
     * @return array<string, mixed> what they answer
     */
    protected function standins(string $path, array $body = []): array
    {
        $port = env('STANDINS_PORT');

        return Http::post("http://control.localhost:{$port}{$path}", $body)->throw()->json();
    }

    protected function order(string $kind, int $times, string $argument = ''): void
    {
        $this->standins('/faults', [
            'site' => 'northquay',
            'kind' => $kind,
            'times' => $times,
            'argument' => $argument,
        ]);
    }

    /** @param array<string, mixed> $body */
    protected function api(string $method, string $path, array $body = [], ?User $as = null): TestResponse
    {
        return $this->actingAs($as ?? $this->editor)->json(
            $method,
            "/api/v1/clients/{$this->client->id}{$path}",
            $body,
        );
    }

    protected static function fromBase32(string $text): string
    {
        $bits = implode(
            '',
            array_map(
                static fn (string $c): string => str_pad(
                    decbin((int) strpos('ABCDEFGHIJKLMNOPQRSTUVWXYZ234567', $c)),
                    5,
                    '0',
                    STR_PAD_LEFT,
                ),
                str_split($text),
            ),
        );

        return implode(
            '',
            array_map(
                static fn (string $b): string => chr((int) bindec($b)),
                str_split(substr($bits, 0, intdiv(strlen($bits), 8) * 8), 8),
            ),
        );
    }
}
