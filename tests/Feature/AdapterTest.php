<?php

namespace Tests\Feature;

use App\Models\Account;
use App\Models\ChangeStatus;
use App\Models\Connection;
use App\Models\Node;
use App\Models\Role;
use App\Models\User;
use Illuminate\Support\Facades\Http;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Process\Process;
use Tests\TestCase;

/** A program of one's own that speaks the connector protocol: the one of docs/connector.md, run as it stands. */
final class AdapterTest extends TestCase
{
    private ?Process $adapter = null;

    private string $file = '';

    private User $owner;

    protected function setUp(): void
    {
        parent::setUp();
        $this->owner = $this->member(Role::Owner, $this->client);
    }

    protected function tearDown(): void
    {
        $this->adapter?->stop();
        if ($this->file !== '') {
            unlink($this->file);
        }
        parent::tearDown();
    }

    /** @return string where it answers */
    private function begin(): string
    {
        $this->file = (string) tempnam(sys_get_temp_dir(), 'adapter');
        $node = static fn (string $id, ?string $parent, string $level, array $more = []): array => [
            'id' => $id,
            'parent' => $parent,
            'level' => $level,
            'name' => "The {$id}",
            ...$more,
        ];
        file_put_contents($this->file, json_encode(['id' => 'A-1', 'name' => 'By adapter', 'nodes' => [
            $node('A-1', null, 'account'),
            $node('C-1', 'A-1', 'campaign', ['type' => 'content']),
            $node('I-1', 'C-1', 'item', ['slots' => ['landing' => 'https://v.example/a?lang=en']]),
            $node('I-2', 'C-1', 'item', ['slots' => ['landing' => 'https://v.example/b']]),
        ]]));
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        $port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
        fclose($socket);
        $command = ['node', base_path('docs/examples/adapter.mjs'), $this->file, (string) $port];
        $this->adapter = new Process($command, env: ['TOKEN' => 'sesame']);
        $this->adapter->start();
        $this->adapter->waitUntil(static fn (string $type, string $text): bool => str_contains($text, 'ready'));
        config(['platforms.near' => ["adapter.localhost:{$port}"]]);
        config(['platforms.adapters.hosts' => ['adapter.localhost']]);

        return "http://adapter.localhost:{$port}";
    }

    /** @param array<string, string> $what */
    private function connect(array $what): TestResponse
    {
        return $this->api(
            'POST',
            '/connections',
            $what + ['title' => 'Our adapter', 'dialect' => 'mossfeed', 'token' => 'sesame'],
            $this->owner,
        );
    }

    public function test_it_is_connected_brought_in_written_to_and_read_back(): void
    {
        $connected = $this->connect(['address' => $this->begin()])->assertStatus(201);
        self::assertSame([['id' => 'A-1', 'name' => 'By adapter', 'elements' => 4]], $connected->json('accounts'));
        self::assertFalse(Connection::query()->findOrFail($connected->json('id'))->clicks);
        self::assertStringNotContainsString('sesame', (string) $this->api('GET', '/connections')->getContent());

        $this->api('POST', "/connections/{$connected->json('id')}/imports")->assertStatus(202);
        $account = Account::query()->where('connection_id', $connected->json('id'))->firstOrFail();
        self::assertSame(2, Node::query()->where(['account_id' => $account->id, 'is_ad' => true])->count());
        $this->planned();
        $change = $this->inLine($account);
        self::assertNotNull($change->refresh()->story);
        for ($step = 0; $step < 2 && $change->refresh()->status !== ChangeStatus::Done; $step++) {
            $this->api('POST', "/changes/{$change->id}/application")->assertStatus(202);
        }
        self::assertSame(ChangeStatus::Done, $change->refresh()->status, (string) $change->problem);
        $kept = json_decode((string) file_get_contents($this->file), true)['nodes'];
        self::assertStringContainsString('utm_source=northquay', json_encode($kept, JSON_UNESCAPED_SLASHES));
        $this->api('DELETE', "/connections/{$connected->json('id')}", [], $this->owner)->assertStatus(409);
    }

    public function test_a_wrong_token_and_a_program_that_is_not_there_are_told_and_nothing_is_kept(): void
    {
        $address = $this->begin();
        $this->connect(['address' => $address, 'token' => 'wrong'])
            ->assertStatus(502)
            ->assertJsonPath('message', 'Our adapter refused the request: the token is wrong.');
        $this->adapter?->stop();
        $this->connect(['address' => $address])->assertStatus(502);
        self::assertSame(0, Connection::query()->count());
    }

    /** @return array<string, array{string, int, string}> */
    public static function places(): array
    {
        return [
            'no host that is allowed' => ['https://evil.example/x', 502, 'ADAPTER_HOSTS'],
            'a private address by number' => ['https://10.0.0.8/x', 502, 'private address'],
            'this machine' => ['https://127.0.0.1/x', 502, 'private address'],
            'this machine by name' => ['https://localhost/', 502, 'private address'],
            'where cloud machines tell secrets' => ['https://169.254.169.254/', 502, 'private address'],
            'not encrypted' => ['http://ok.example/', 422, 'https://'],
            'another port' => ['https://ok.example:8443/', 502, 'port 8443'],
            'a sign-in in it' => ['https://a:b@ok.example/', 422, 'sign-in'],
            'no address' => ['ok.example', 422, 'is no address'],
            'a file' => ['file:///etc/passwd', 422, 'is no address'],
        ];
    }

    #[DataProvider('places')]
    public function test_the_server_is_not_sent_where_it_may_not_go(string $address, int $status, string $says): void
    {
        Http::preventStrayRequests();
        config(['platforms.adapters.hosts' => [
            'ok.example',
            '10.0.0.8',
            '127.0.0.1',
            '169.254.169.254',
            'localhost',
        ]]);
        $this->connect(['address' => $address])
            ->assertStatus($status)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, $says));
        self::assertSame(0, Connection::query()->count());
    }

    public function test_a_platform_that_is_not_known_is_refused(): void
    {
        $this->connect(['address' => 'https://ok.example/', 'dialect' => 'nowhere'])->assertStatus(422);
    }
}
