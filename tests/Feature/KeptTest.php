<?php

namespace Tests\Feature;

use App\Connectors\Connectors;
use App\Demo\DemoLoad;
use App\Models\Client;
use App\Models\Connection;
use App\Models\User;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use Illuminate\Support\Facades\Queue;
use Tests\TestCase;

/** What rests, and how: secrets sealed, values as they are, versions pinned, the demo loaded once. */
final class KeptTest extends TestCase
{
    public function test_tokens_of_platforms_rest_sealed_in_caches_too(): void
    {
        $account = $this->imported();
        app()->forgetInstance(Connectors::class);
        app(Connectors::class)->to($account->link)->accounts($account->link);
        $key = "token {$account->connection_id} ".sha1($account->link->getRawOriginal('credentials'));
        $kept = Cache::get($key);
        self::assertIsString($kept);
        self::assertStringStartsWith('eyJpdiI6', $kept, 'what encryptString() writes');
        self::assertStringNotContainsString('quay-7731', (string) DB::table('connections')->value('credentials'));
    }

    public function test_a_failed_query_is_logged_without_its_values(): void
    {
        Log::shouldReceive('error')
            ->once()
            ->withArgs(static function (string $message, array $context): bool {
                return ! str_contains($message.json_encode($context), 'a-secret-value')
                    && str_contains($message, 'A query failed')
                    && str_contains($context['sql'], 'insert into `users`');
            });
        try {
            DB::table('users')->insert([
                'email' => 'a-secret-value',
                'name' => null,
                'password' => 'a-secret-value',
            ]);
        } catch (\Illuminate\Database\QueryException $e) {
            report($e);
        }
    }

    /** The very fault the product looks for: two spellings are two values, for the database too. */
    public function test_values_are_compared_byte_by_byte(): void
    {
        $collector = $this->client->collectors()->create(['site' => 'velmar', 'credentials' => 'c']);
        foreach (['cpc', 'CPC', 'cpc ', 'cpç'] as $i => $medium) {
            $this->client->arrivals()->create([
                'collector_id' => $collector->id,
                'external_id' => $i,
                'at' => now(),
                'url' => 'https://v.example/',
                'medium' => $medium,
            ]);
        }
        self::assertEqualsCanonicalizing(
            ['cpc', 'CPC', 'cpc ', 'cpç'],
            array_column($this->api('GET', '/arrivals/totals')->json('items'), 'medium'),
        );
        $folded = DB::table('information_schema.columns')
            ->where('table_schema', DB::getDatabaseName())
            ->whereNotNull('collation_name')
            ->where('collation_name', 'not like', '%bin')
            ->orderBy('table_name')
            ->get(['table_name as t', 'column_name as c'])
            ->map(static fn (object $r): string => "{$r->t}.{$r->c}")
            ->all();
        self::assertSame(
            [
                'accounts.name',
                'changes.title',
                'clients.name',
                'connections.title',
                'filters.name',
                'name_words.word',
                'nodes.name',
                'users.name',
            ],
            $folded,
            'case is folded only where people search or sort by name',
        );
    }

    public function test_every_connection_has_utc_and_the_server_keeps_every_commit(): void
    {
        self::assertSame('+00:00', DB::scalar('select @@session.time_zone'));
        $server = (array) DB::selectOne(
            'select @@innodb_flush_log_at_trx_commit flush, @@innodb_doublewrite doublewrite, @@skip_networking alone',
        );
        self::assertEquals(
            [1, 'ON', 1],
            [$server['flush'], $server['doublewrite'] === 1 ? 'ON' : $server['doublewrite'], $server['alone']],
        );
        // a time that a summer time clock does not have
        DB::table('marks')->insert(['name' => 'spring', 'at' => '2026-03-29 02:30:00.000']);
        self::assertSame('2026-03-29 02:30:00.000', DB::table('marks')->where('name', 'spring')->value('at'));
        self::assertStringNotContainsString('root', (string) DB::scalar('select current_user()'));
    }

    public function test_the_demo_is_loaded_once_and_known_passwords_do_not_come_back(): void
    {
        Queue::fake();
        DB::connection('owner')->statement('set foreign_key_checks = 0');
        DB::connection('owner')->table('memberships')->delete();
        DB::connection('owner')->table('users')->delete();
        DB::connection('owner')->table('clients')->delete();
        $this->artisan(DemoLoad::class)->assertSuccessful();
        self::assertSame(
            [4, 2, 11],
            [User::query()->count(), Client::query()->count(), Connection::query()->count()],
        );
        User::query()->where('email', 'runa@ninefold.example')->delete();
        User::query()
            ->where('email', 'mara@saltmarsh.example')
            ->firstOrFail()
            ->forceFill(['password' => 'her own now'])
            ->save();
        $this->artisan(DemoLoad::class)->assertSuccessful();
        self::assertSame(3, User::query()->count());
        self::assertFalse(
            password_verify(
                'tide-table',
                User::query()->where('email', 'mara@saltmarsh.example')->firstOrFail()->password,
            ),
        );
        DB::connection('owner')->statement('set foreign_key_checks = 1');
    }

    /** The whole tree, not only what is asked for by name: a fresh machine gets the same next year. */
    public function test_every_package_is_pinned(): void
    {
        $composer = json_decode((string) file_get_contents(base_path('composer.json')), true);
        $installed = json_decode((string) file_get_contents(base_path('vendor/composer/installed.json')), true);
        $pinned = $composer['require'] + $composer['require-dev'];
        foreach ($installed['packages'] as $package) {
            self::assertSame(
                ltrim($package['version'], 'v'),
                $pinned[$package['name']] ?? null,
                "{$package['name']}: run php bin/pin.php",
            );
        }
        self::assertGreaterThan(90, count($installed['packages']));
    }
}
