<?php

namespace Tests\Feature;

use App\Models\Collector;
use App\Watching\Gathering;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Tests\TestCase;

/** Logs of web servers: views of people, told apart by the day, once however often they come. */
final class LogsTest extends TestCase
{
    private const BROWSER = 'Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101 Firefox/128.0';

    private Collector $site;

    protected function setUp(): void
    {
        parent::setUp();
        $this->site = $this->client->collectors()->create(['site' => 'Shop', 'hosts' => ['shop.example']]);
    }

    protected function tearDown(): void
    {
        File::deleteDirectory(storage_path('logs-in'));
        parent::tearDown();
    }

    private static function line(
        string $target,
        string $minute,
        string $who = '192.0.2.7',
        string $agent = self::BROWSER,
    ): string {
        $at = now()->subDays(2)->format('d/M/Y');

        return "{$who} - - [{$at}:09:{$minute}:00 +0000] \"GET {$target} HTTP/1.1\" 200 512 \"-\" \"{$agent}\"\n";
    }

    /** @return array<string, mixed> */
    private function putLog(string $content): array
    {
        $file = ['name' => 'access.log', 'content' => base64_encode($content)];
        $id = $this->api('POST', "/sites/{$this->site->id}/files", $file)->assertStatus(201)->json('id');
        $told = $this->api('GET', "/sites/{$this->site->id}/files")->assertOk()->json('items.0');
        self::assertSame($id, $told['id']);

        return $told;
    }

    public function test_pages_that_people_have_seen_are_views_and_of_who_they_were_nothing_is_kept(): void
    {
        $log =
            self::line('/tickets?utm_source=a&utm_medium=cpc', '00').
            self::line('/book', '05').
            self::line('/style.css', '05').
            self::line('/book', '06', '192.0.2.8').
            self::line('/book', '07', '192.0.2.9', 'Googlebot/2.1 (+http://example.org/bot)').
            "what is this\n".
            self::line('http://elsewhere.example/', '08').
            self::line('/book', '05'); // twice in one minute
        $told = $this->putLog($log);
        self::assertSame(['read', 8, 4], [$told['state'], $told['lines'], $told['taken']]);
        self::assertEquals(
            ['no-page' => 1, 'program' => 1, 'unreadable' => 1, 'foreign-address' => 1],
            $told['leftOut'],
        );
        while (app(Gathering::class)->some() > 0);
        $sessions = DB::table('site_sessions')->orderBy('begin')->get();
        self::assertSame(
            [[3, 'a'], [1, '(direct)']],
            $sessions->map(static fn ($s): array => [$s->views, $s->source])->all(),
        );
        self::assertSame(['https://shop.example/tickets', 'desktop'], [$sessions[0]->landing, $sessions[0]->device]);
        self::assertNotSame($sessions[0]->visitor, $sessions[1]->visitor);
        $kept = (string) json_encode([DB::table('arrivals')->get(), DB::table('site_files')->get()]);
        self::assertStringNotContainsString('192.0.2', $kept);
        self::assertStringNotContainsString('Firefox', $kept);

        // the same again, packed: nothing new; those of another day are told apart by another salt
        self::assertSame(0, $this->putLog((string) gzencode($log))['taken']);
        $this->travel(2)->days();
        $this->artisan('arrivals:days');
        self::assertSame(0, DB::table('log_salts')->count());
    }

    public function test_the_w3c_s_format_names_the_host_that_was_asked_for(): void
    {
        $day = now()->subDay()->format('Y-m-d');
        $told = $this->putLog(
            "#Version: 1.0\n".
                "#Fields: date time c-ip cs-method cs-uri-stem cs-uri-query sc-status cs(User-Agent) cs-host\n".
                "{$day} 09:00:00 192.0.2.7 GET /book utm_source=b 200 Mozilla/5.0 shop.example\n".
                "{$day} 09:01:00 192.0.2.7 GET /book - 200 Mozilla/5.0 other.example\n",
        );
        self::assertSame([2, 1, ['foreign-address' => 1]], [$told['lines'], $told['taken'], $told['leftOut']]);
        self::assertSame('https://shop.example/book?utm_source=b', DB::table('arrivals')->value('url'));
    }

    public function test_an_analytics_has_no_log(): void
    {
        $read = $this->client->collectors()->create(['site' => 'Read', 'credentials' => 'x']);
        $this->api('POST', "/sites/{$read->id}/files", ['name' => 'a', 'content' => 'YQ=='])->assertStatus(422);
    }
}
