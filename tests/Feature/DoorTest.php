<?php

namespace Tests\Feature;

use App\Arrivals\Sites;
use App\Collecting\Caller;
use App\Collecting\Connection;
use App\Collecting\Door;
use App\Collecting\Site;
use App\Models\Arrival;
use App\Models\Collector;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** The short way in for what pages report: it keeps what the whole way keeps, and takes nothing else. */
final class DoorTest extends TestCase
{
    private const KEY = 'rrrrrrrrrrrrrrrrrrrrrrrr';

    private const AGENT = 'Mozilla/5.0 (X11; Linux x86_64) Chrome/146.0 Safari/537.36';

    private Collector $collector;

    private ?Site $site;

    /** @var array<string, int> */
    private array $counted = [];

    protected function setUp(): void
    {
        parent::setUp();
        $this->collector = $this->client
            ->collectors()
            ->create(['site' => 'Shop', 'hosts' => ['shop.example'], 'key' => self::KEY]);
        // as memory gives it back
        $this->site = unserialize(serialize(app(Sites::class)->of($this->collector)));
    }

    /** @param array<string, mixed> $more */
    private static function event(string $id, array $more = []): array
    {
        $at = now()->toIso8601ZuluString('millisecond');

        return $more + ['id' => $id, 'site' => 's', 'kind' => 'view', 'at' => $at, 'url' => 'https://shop.example/'];
    }

    /** @param list<mixed> $events */
    private static function report(array $events): string
    {
        return (string) json_encode(['sent' => now()->toIso8601ZuluString('millisecond'), 'events' => $events]);
    }

    /** @return array{int, array<string, string>, array<string, mixed>}|null */
    private function door(
        string $content,
        string $origin = 'https://shop.example',
        string $agent = self::AGENT,
        string $key = self::KEY,
        string $address = '198.51.100.7',
    ): ?array {
        $door = new Door(
            fn (string $asked): ?Site => $asked === self::KEY ? $this->site : null,
            fn (string $word): int => $this->counted[$word] = ($this->counted[$word] ?? 0) + 1,
            static fn (string $agent): bool => str_starts_with($agent, 'curl'),
            static fn (array $rows): int => (new Connection([
                'DB_SOCKET' => config('database.connections.mariadb.unix_socket'),
                'DB_DATABASE' => config('database.connections.mariadb.database'),
                'DB_USERNAME' => config('database.connections.mariadb.username'),
                'DB_PASSWORD' => config('database.connections.mariadb.password'),
            ]))->keep($rows),
        );

        return $door->answer($key, $origin, $agent, $address, $content, (int) now()->getPreciseTimestamp(3));
    }

    /** @return list<array<string, mixed>> all that is kept of what came in, but for numbers */
    private static function kept(): array
    {
        return Arrival::query()
            ->orderBy('url')
            ->toBase()
            ->get()
            ->map(static fn (object $a): array => ['id' => 0] + (array) $a)
            ->all();
    }

    public function test_it_keeps_what_the_whole_way_keeps(): void
    {
        $content = self::report([
            self::event('a', [
                'url' => 'https://www.shop.example/ä?utm_source=quay&utm_medium=cpc&utm_content=%FF7&nqcid=k1#top',
                'referrer' => 'https://seek.example/',
                'visitor' => 'w1',
            ]),
            self::event('b', ['url' => 'https://shop.example/ferries', 'visitor' => 'w1']),
            self::event('c', ['url' => 'https://shop.example/zones']),
        ]);
        $whole = $this->call(
            'POST',
            '/in/'.self::KEY,
            server: ['HTTP_ORIGIN' => 'https://shop.example', 'HTTP_USER_AGENT' => self::AGENT],
            content: $content,
        )->assertStatus(202);
        [$arrivals, $touched] = [self::kept(), DB::table('touched')->orderBy('who')->get()->all()];
        self::assertCount(3, $arrivals);
        foreach (['arrivals', 'arrival_ids', 'touched'] as $table) {
            DB::connection('owner')->table($table)->delete();
        }

        [$status, $headers, $told] = $this->door($content) ?? self::fail('it was not taken');
        self::assertSame(202, $status);
        self::assertSame($whole->json(), json_decode((string) json_encode($told), true));
        foreach ($headers as $name => $value) {
            self::assertSame($whole->headers->get($name), $value, $name);
        }
        self::assertEquals($arrivals, self::kept());
        $ofNobody = 'a'.Arrival::query()->whereNull('visitor')->value('id');
        $again = DB::table('touched')->orderBy('who')->get()->all();
        self::assertSame([$ofNobody, 'vw1'], array_column($again, 'who'));
        self::assertSame(array_column($touched, 'since'), array_column($again, 'since'));

        self::assertSame(0, $this->door($content)[2]['taken'] ?? null);
        self::assertSame(3, Arrival::query()->count());
    }

    /** @return iterable<string, array{\Closure(self): mixed}> */
    public static function others(): iterable
    {
        $plain = static fn (): string => self::report([self::event('a')]);
        yield 'a site that nobody knows of' => [static fn (self $t): mixed => $t->door($plain(), key: 'x')];
        yield 'pages of others' => [static fn (self $t): mixed => $t->door($plain(), 'https://elsewhere.example')];
        yield 'no page' => [static fn (self $t): mixed => $t->door($plain(), '')];
        yield 'a program' => [static fn (self $t): mixed => $t->door($plain(), agent: 'curl/8.5.0')];
        yield 'nothing that can be read' => [static fn (self $t): mixed => $t->door('{')];
        yield 'nothing' => [static fn (self $t): mixed => $t->door(self::report([]))];
        yield 'too much at once' => [static fn (self $t): mixed => $t->door($plain().str_repeat(' ', 1 << 16))];
        yield 'one that can’t be taken beside one that can' => [
            static fn (self $t): mixed => $t->door(
                self::report([self::event('a'), self::event('b', ['at' => 'noon'])]),
            ),
        ];
        yield 'something that was sold' => [
            static fn (self $t): mixed => $t->door(self::report([self::event('a', ['kind' => 'convert'])])),
        ];
    }

    /** @param \Closure(self): mixed $reported */
    #[DataProvider('others')]
    public function test_whatever_is_not_plain_goes_the_whole_way(\Closure $reported): void
    {
        self::assertNull($reported($this));
        self::assertSame(0, Arrival::query()->count());
        self::assertSame(0, DB::table('arrival_ids')->count());
    }

    public function test_reports_of_a_site_and_of_an_address_are_counted(): void
    {
        $often = (int) config('limits.collect_address');
        $this->counted['address 198.51.100.7'] = $often - 1;
        self::assertSame(202, $this->door(self::report([self::event('a')]))[0] ?? null);
        [$status, $headers] = $this->door(self::report([self::event('b')])) ?? self::fail('it went the whole way');
        self::assertSame(429, $status);
        self::assertGreaterThan(0, (int) $headers['Retry-After']);
        self::assertSame(202, $this->door(self::report([self::event('b')]), address: '198.51.100.8')[0] ?? null);

        $this->counted['site '.self::KEY] = (int) config('limits.collect_site');
        self::assertSame(429, $this->door(self::report([self::event('c')]), address: '198.51.100.9')[0] ?? null);
        self::assertSame(2, Arrival::query()->count());
    }

    /** Addresses are those that RFC 5737 sets aside for examples. */
    public function test_behind_a_proxy_that_is_trusted_it_is_told_who_calls(): void
    {
        $call = static fn (string $from, string $for, string $trusted): string => Caller::address(
            ['REMOTE_ADDR' => $from, 'HTTP_X_FORWARDED_FOR' => $for],
            $trusted,
        );
        self::assertSame('192.0.2.1', $call('192.0.2.1', '203.0.113.5', ''));
        self::assertSame('192.0.2.1', $call('192.0.2.1', '203.0.113.5', '198.51.100.0/24'));
        self::assertSame('203.0.113.5', $call('198.51.100.9', '203.0.113.5', '198.51.100.0/24'));
        self::assertSame('203.0.113.5', $call('198.51.100.9', '10.0.0.1, 203.0.113.5', '198.51.100.0/24'));
        self::assertSame('203.0.113.5', $call('192.0.2.1', '203.0.113.5, 198.51.100.9', '192.0.2.1,198.51.100.9'));
        self::assertSame('198.51.100.9', $call('198.51.100.9', '', '198.51.100.0/24'));
        self::assertSame('203.0.113.5', $call('192.0.2.1', '10.0.0.1, 203.0.113.5', '*'));
    }
}
