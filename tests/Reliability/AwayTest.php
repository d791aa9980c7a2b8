<?php

namespace Tests\Reliability;

use App\Support\Heartbeat;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** What is said while something that we need is away. */
final class AwayTest extends TestCase
{
    use StopsDatabase;

    public function test_without_its_database_it_says_so_in_one_sentence_and_goes_on_by_itself(): void
    {
        $page = static fn (string $path) => Http::acceptJson()
            ->withHeaders(['Origin' => env('APP_URL')])
            ->timeout(10)
            ->get(env('APP_URL').$path);
        self::assertSame('ok', $page('/up')->json('database'));
        $this->stopDatabase(0, static function () use ($page): void {
            foreach (['/api/v1/session', '/api/v1/clients/1/accounts', '/sanctum/csrf-cookie'] as $path) {
                $away = $page($path);
                self::assertSame(
                    [503, '5'],
                    [$away->status(), $away->header('Retry-After')],
                    $path.$away->body(),
                );
                self::assertStringContainsString(
                    'The database can’t be reached just now. Nothing was lost',
                    $away->json('message') ?? $away->body(),
                );
                self::assertStringNotContainsString('SQLSTATE', $away->body());
            }
            $up = $page('/up');
            self::assertSame(
                [503, 'can’t be reached', 'ok'],
                [$up->status(), $up->json('database'), $up->json('disk')],
            );
            self::assertSame(200, $page('/velmar/accounts')->status(), 'the page itself needs none');
        });
        self::assertSame('ok', $page('/up')->json('database'));
        self::assertSame(401, $page('/api/v1/session')->status());
    }

    public function test_only_its_own_names_are_answered_and_files_carry_no_cookie(): void
    {
        foreach (['evil.example', 'localhost'] as $host) {
            $refused = Http::acceptJson()
                ->withHeaders(['Host' => $host])
                ->get(env('APP_URL').'/api/v1/session');
            self::assertSame(
                [400, 'This is not an address of Vestigon’s: '.env('APP_URL').' is.'],
                [$refused->status(), $refused->json('message')],
            );
        }
        $page = Http::get(env('APP_URL').'/');
        self::assertSame(1, preg_match('~src="[^"]*(/build/[^"]+\.js)"~', $page->body(), $script));
        foreach (['/', $script[1], '/favicon.svg'] as $path) {
            $file = Http::get(env('APP_URL').$path);
            self::assertSame(
                [200, '', 'nosniff'],
                [$file->status(), $file->header('Set-Cookie'), $file->header('X-Content-Type-Options')],
                $path,
            );
        }
    }

    public function test_a_worker_that_gives_no_sign_of_life_is_missed(): void
    {
        self::assertStringContainsString(
            'no worker has given a sign of life',
            $this->getJson('/up')->assertStatus(503)->assertHeader('Retry-After')->json('queue'),
        );
        $this->app->make(Heartbeat::class)->beat('worker');
        $this->getJson('/up')
            ->assertOk()
            ->assertExactJson(['database' => 'ok', 'queue' => 'ok', 'disk' => 'ok']);
        DB::table('heartbeats')->update(['at' => DB::raw('now(3) - interval 90 second')]);
        self::assertSame(
            'no worker has given a sign of life for 90 seconds',
            $this->getJson('/up')->assertStatus(503)->json('queue'),
        );
    }

    /** @return iterable<string, array{class-string<ShouldQueue>}> */
    public static function jobs(): iterable
    {
        foreach (glob(dirname(__DIR__, 2).'/app/Jobs/*.php') ?: [] as $file) {
            $class = 'App\\Jobs\\'.basename($file, '.php');
            yield $class => [$class];
        }
    }

    /** @param class-string<ShouldQueue> $class */
    #[DataProvider('jobs')]
    public function test_no_job_is_given_to_a_second_worker_while_the_first_may_be_at_it(string $class): void
    {
        $timeout = (new \ReflectionClass($class))->getDefaultProperties()['timeout'] ?? null;
        self::assertIsInt($timeout, 'it says how long it may take');
        self::assertGreaterThan($timeout, config('queue.connections.database.retry_after'));
    }
}
