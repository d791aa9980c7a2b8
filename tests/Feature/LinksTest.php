<?php

namespace Tests\Feature;

use App\Arrivals\Keeping;
use App\Arrivals\Sites;
use App\Collecting\Incoming;
use App\Collecting\Row;
use App\Links\Opened;
use App\Links\Redirects;
use App\Models\Link;
use App\Watching\Gathering;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;
use Vestigon\Redirector\Database;
use Vestigon\Redirector\Known;
use Vestigon\Redirector\Programs;
use Vestigon\Redirector\Redirector;
use Vestigon\Redirector\Tally;

/** Links that people place: looked at, made, shortened, followed, counted, and found again in what arrives. */
final class LinksTest extends TestCase
{
    private const AGENT = 'Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101 Firefox/128.0';

    protected function setUp(): void
    {
        parent::setUp();
        File::deleteDirectory(Redirects::folder());
    }

    /** @return array<string, mixed> */
    private static function row(string $campaign = 'spring', ?string $code = null): array
    {
        return [
            'landing' => 'https://velmar.example/tickets?lang=en',
            'pairs' => ['utm_source' => 'harbour-notes', 'utm_medium' => 'email', 'utm_campaign' => $campaign],
            'title' => 'Newsletter',
            ...match ($code) {
                null => [],
                '' => ['short' => true],
                default => ['code' => $code],
            },
        ];
    }

    /** @param list<array<string, mixed>> $rows */
    private function make(array $rows): \Illuminate\Testing\TestResponse
    {
        return $this->api('POST', '/links', ['rows' => $rows])->assertStatus(201);
    }

    /** The gravest of each is told, by its cause; what is agreed on later makes others right or wrong. */
    public function test_what_is_wrong_with_links_is_told_where_the_day_begins(): void
    {
        $this->make([self::row('Spring'), self::row('Summer'), self::row('autumn')]);
        $ended = $this->make([self::row('Winter')])->json('made.0.id');
        Link::query()
            ->whereKey($ended)
            ->update(['ends_at' => now()->subDay()]);
        $told = function (): array {
            DB::table('clients')->update(['troubles_at' => null]);
            $all = $this->api('GET', '/troubles')->assertOk()->json('items');

            return array_values(array_filter($all, static fn (array $t): bool => $t['kind'] === 'link'));
        };
        $causes = $told();
        self::assertCount(1, $causes);
        self::assertSame([2, null, null], [$causes[0]['ads'], $causes[0]['account'], $causes[0]['feed']]);
        self::assertStringContainsString('“…”', $causes[0]['what']);
        $of = $this->api('GET', "/troubles/{$causes[0]['id']}/ads")
            ->assertOk()
            ->json();
        self::assertCount(2, $of['ids']);
        self::assertStringContainsString('“Summer”', $of['items'][0]['fault']);

        $this->api('PUT', '/agreements/words', [
            'revision' => 0,
            'document' => [
                'format' => 'vestigon.words/1',
                'keys' => ['utm_source' => [['word' => 'letters']]],
            ],
        ])->assertOk();
        $after = $told();
        self::assertSame(
            [3],
            array_column(array_filter($after, static fn ($t) => $t['mendedAt'] === null), 'ads'),
        );
    }

    private function redirector(?Database $database = null): Redirector
    {
        $connection = config('database.connections.'.config('database.default'));

        return new Redirector(
            new Known(Redirects::folder()),
            $database
                ?? new Database(
                    (string) $connection['unix_socket'],
                    (string) $connection['database'],
                    (string) $connection['username'],
                    (string) $connection['password'],
                ),
            new Tally(Redirects::folder().'/opened'),
            static fn (string $a): bool => Programs::isOne(require base_path('redirector/programs.php'), $a),
        );
    }

    public function test_rows_are_looked_at_and_made_and_doubles_are_named(): void
    {
        $looks = $this->api('POST', '/links/look', ['rows' => [self::row(), self::row(), self::row('Spring')]])
            ->assertOk()
            ->json('rows');
        self::assertSame(
            'https://velmar.example/tickets?lang=en&utm_source=harbour-notes&utm_medium=email&utm_campaign=spring',
            $looks[0]['url'],
        );
        self::assertSame([null, 0, null], array_column($looks, 'sameAs'));
        self::assertSame('not-lowercase', $looks[2]['findings'][0]['code']);
        self::assertSame($looks[0]['url'], implode('', array_column($looks[0]['segments'], 'text')));
        self::assertSame(0, Link::query()->count());

        $made = $this->make([self::row(), ['landing' => 'javascript:alert(1)'], self::row('summer', '')]);
        self::assertSame([1], array_column($made->json('refused'), 'row'));
        self::assertCount(2, $made->json('made'));
        self::assertNull($made->json('made.0.short'));
        self::assertMatchesRegularExpression(
            '~^'.preg_quote((string) config('app.url')).'/s/[2-9a-hj-km-np-z]{7}$~',
            $made->json('made.1.short'),
        );
        $again = $this->api('POST', '/links/look', ['rows' => [self::row()]])->json('rows.0');
        self::assertSame($made->json('made.0.id'), $again['double']['id']);
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function words(): iterable
    {
        yield 'too short' => ['ab', '', 'no-code'];
        yield 'a slash' => ['a/b', '', 'no-code'];
        yield 'a host of others' => ['fine', 'go.elsewhere.example', 'no-short-host'];
        yield 'taken' => ['taken', '', 'code-taken'];
        yield 'taken, in capitals' => ['TAKEN', '', 'code-taken'];
    }

    #[DataProvider('words')]
    public function test_a_word_of_one_s_own_that_can_t_be_had(string $code, string $host, string $finding): void
    {
        $this->make([self::row(code: 'taken')]);
        $row = ['host' => $host] + self::row('x', $code);
        $look = $this->api('POST', '/links/look', ['rows' => [$row]])->json('rows.0');
        self::assertFalse($look['allowed']);
        self::assertContains($finding, array_column($look['findings'], 'code'));
    }

    public function test_a_word_may_be_had_once_on_each_host_and_a_host_by_one_client(): void
    {
        $owner = $this->member(\App\Models\Role::Owner, $this->client);
        $this->api('POST', '/links/hosts', ['host' => 'go.velmar.example'], $owner)->assertStatus(201);
        $this->api('POST', '/links/hosts', ['host' => 'go.velmar.example'], $owner)->assertStatus(422);
        $this->make([self::row(code: 'harbour'), ['host' => 'go.velmar.example'] + self::row('x', 'harbour')]);
        $redirector = $this->redirector();
        $ask = fn (string $host): array => $redirector->answer('GET', $host, 'harbour', '', time())[1];
        self::assertStringEndsWith('utm_campaign=spring', $ask('127.0.0.1')['Location']);
        self::assertStringEndsWith('utm_campaign=x', $ask('go.velmar.example')['Location']);
        $host = $this->client->shortHosts()->firstOrFail()->id;
        $this->api('DELETE', "/links/hosts/{$host}", [], $owner)->assertStatus(422);
        // a page of a host of short addresses could lead in a circle
        $look = $this->api('POST', '/links/look', [
            'rows' => [['landing' => 'https://go.velmar.example/s/harbour']],
        ]);
        self::assertSame('own-short-address', $look->json('rows.0.findings.0.code'));
    }

    public function test_a_short_address_leads_where_it_should_and_says_when_it_does_not(): void
    {
        $id = $this->make([self::row(code: 'harbour')])->json('made.0.id');
        $ask = fn (
            string $method = 'GET',
            string $query = '',
            ?int $now = null,
        ): array => $this->redirector()->answer($method, '127.0.0.1', 'Harbour', $query, $now ?? time());
        $url = Link::query()->findOrFail($id)->url;
        // RFC 9110, 15.4.3
        self::assertSame([302, ['Location' => $url, 'Cache-Control' => 'private, max-age=0'], $id], $ask());
        self::assertSame([302, null], [$ask('HEAD')[0], $ask('HEAD')[2]]); // looked at, not opened
        self::assertSame([405, ['Allow' => 'GET, HEAD'], null], $ask('POST'));
        self::assertSame($url, $ask('GET', 'utm_source=evil')[1]['Location']);
        self::assertSame(404, $this->redirector()->answer('GET', '127.0.0.1', 'nobody', '', time())[0]);

        $this->api('PUT', "/links/{$id}", ['forwards' => true])->assertOk();
        // no header of theirs
        self::assertSame("{$url}&seat=4&x=%0Aa", $ask('GET', "seat=4&x=%0A\r\n#a")[1]['Location']);
        $moved = ['landing' => 'https://velmar.example/winter', 'pairs' => ['utm_source' => 'harbour-notes']];
        $told = $this->api('PUT', "/links/{$id}", $moved + ['why' => 'the season is over'])->assertOk();
        self::assertSame('https://velmar.example/winter?utm_source=harbour-notes', $ask()[1]['Location']);
        self::assertSame(
            [$url, 'the season is over'],
            [$told->json('moves.0.before'), $told->json('moves.0.why')],
        );

        $this->api('PUT', "/links/{$id}", ['endsAt' => now()->addHour()->toIso8601ZuluString()])->assertOk();
        self::assertSame(302, $ask()[0]);
        self::assertSame(410, $ask(now: time() + 3601)[0]); // RFC 9110, 15.5.11
        $this->api('PUT', "/links/{$id}", ['endsAt' => null])->assertOk();
        $this->api('DELETE', "/links/{$id}")->assertNoContent();
        self::assertSame(410, $ask()[0]);
        $this->api('POST', "/links/{$id}/return")->assertOk();
        self::assertSame(302, $ask()[0]);
    }

    public function test_with_the_database_away_what_was_asked_for_before_leads_on_and_is_counted_later(): void
    {
        $id = $this->make([self::row(code: 'harbour')])->json('made.0.id');
        $at = Carbon::parse('2026-11-27T22:30:40Z');
        $this->travelTo($at);
        $ask = static function (Redirector $r, string $code, int $later, string $agent = self::AGENT) use (
            $at,
        ): array {
            $now = $at->getTimestamp() + $later;
            $answer = $r->answer('GET', '127.0.0.1', $code, '', $now);
            if ($answer[2] !== null) {
                $r->opened($answer[2], $agent, $now);
            }

            return $answer;
        };
        self::assertSame(302, $ask($this->redirector(), 'harbour', 0)[0]);
        $away = $this->redirector(new Database('/nowhere.sock', 'x', 'x', 'x'));
        self::assertSame(302, $ask($away, 'harbour', 3600)[0]);
        self::assertSame(302, $ask($away, 'harbour', 3601, 'Googlebot/2.1 (+http://example.org/bot)')[0]);
        self::assertSame([503, ['Retry-After' => '5'], null], $ask($away, 'unknown', 3600)); // RFC 9110, 15.6.4

        $this->client->update(['time_zone' => 'Europe/Oslo']); // an hour ahead of UTC: the second is of the next day
        $this->travelTo($at->copy()->addHours(2));
        $opened = app(Opened::class);
        $files = glob(Redirects::folder().'/opened/*') ?: [];
        $copies = array_map(static fn (string $f): string => (string) file_get_contents($f), $files);
        self::assertSame(2, $opened->count());
        foreach ($files as $i => $file) {
            file_put_contents($file, $copies[$i]); // counted, but not taken away
        }
        $opened->count();
        self::assertSame(
            [['2026-11-27', 1, 0], ['2026-11-28', 1, 1]],
            DB::table('link_days')
                ->where('link_id', $id)
                ->orderBy('day')
                ->get()
                ->map(static fn (object $d): array => [$d->day, $d->people, $d->programs])
                ->all(),
        );
    }

    public function test_what_arrives_by_a_link_is_its_own(): void
    {
        $links = array_column($this->make([self::row(), self::row('summer')])->json('made'), 'url', 'id');
        $site = $this->client->collectors()->create(['site' => 'Velmar', 'hosts' => ['velmar.example']]);
        $items = [];
        foreach (array_values($links) as $i => $url) {
            $items[] = Incoming::read(
                [
                    'id' => $i,
                    'at' => '2026-11-20T09:00:00Z',
                    'kind' => 'view',
                    'url' => "{$url}&seen=1#top",
                    'referrer' => '',
                    'visitor' => "v{$i}",
                ],
                (string) $site->id,
            );
        }
        $items[] = Incoming::read(
            [
                'id' => 9,
                'at' => '2026-11-20T09:10:00Z',
                'kind' => 'convert',
                'url' => 'https://velmar.example/thanks',
                'visitor' => 'v1',
                'value' => 4900,
                'currency' => 'EUR',
            ],
            (string) $site->id,
        );
        $rows = Row::all(app(Sites::class)->of($site->fresh()), $items);
        app(Keeping::class)->keep($site->fresh(), $items, $rows);
        while (app(Gathering::class)->some() > 0);

        $told = $this->api('GET', '/links')->assertOk()->json('items');
        self::assertSame(array_reverse(array_keys($links)), array_column($told, 'id'));
        self::assertSame([1, 1], array_column($told, 'sessions'));
        self::assertSame([1, 0], array_column($told, 'conversions'));
        self::assertSame(['EUR' => 4900], $told[0]['revenue']);
    }

    public function test_whose_link_a_url_can_be_is_told_and_links_are_found_by_name(): void
    {
        $made = $this->make([self::row(), ['pairs' => self::row()['pairs'] + ['partner' => 'x']] + self::row()]);
        [$plain, $partner] = array_column($made->json('made'), 'id');
        $whose = fn (string $more): array => array_column(
            $this->api('POST', '/urls/senders', ['url' => Link::query()->findOrFail($plain)->url.$more])
                ->assertOk()
                ->json('links'),
            'id',
        );
        self::assertSame([$plain], $whose(''));
        self::assertSame([$plain], $whose('&seen=1#top'));
        self::assertSame([$plain, $partner], $whose('&partner=x'));
        self::assertSame([], $whose('&utm_content=other'));
        $found = $this->api('GET', '/search?q=newsl')->assertOk();
        self::assertSame(['Newsletter', 'Newsletter'], $found->json('links.*.title'));
    }

    public function test_links_go_out_as_a_sheet_and_rows_come_in_from_one(): void
    {
        $this->make([['title' => '=SUM(1)'] + self::row(), self::row('summer', 'harbour')]);
        $sheet = $this->api('GET', '/links/file?kind=csv')->assertOk();
        $content = (string) file_get_contents($sheet->baseResponse->getFile()->getPathname());
        self::assertStringContainsString("'=SUM(1)", $content); // no formula in a cell
        $rows = $this->api('POST', '/links/sheet', ['name' => 'l.csv', 'content' => base64_encode($content)])
            ->assertOk()
            ->json('rows');
        self::assertSame(['harbour'], array_column($rows, 'code'));
        self::assertSame(self::row()['pairs'], $rows[0]['pairs']);
        $short = "What for;Page;Source;Medium;Campaign;partner\nA;https://velmar.example/;a;b;c;d\n";
        $read = $this->api('POST', '/links/sheet', [
            'name' => 'l.csv',
            'content' => base64_encode($short),
        ])->json();
        self::assertSame(
            [
                'title' => 'A',
                'landing' => 'https://velmar.example/',
                'pairs' => ['utm_source' => 'a', 'utm_medium' => 'b', 'utm_campaign' => 'c', 'partner' => 'd'],
            ],
            $read['rows'][0],
        );
        $this->api('POST', '/links/sheet', ['name' => 'l.csv', 'content' => base64_encode("a;b\n1;2\n")])
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'landing page'));
    }

    public function test_who_looks_for_words_finds_links(): void
    {
        $this->make([self::row(), ['title' => 'Poster'] + self::row('summer', 'pier')]);
        $find = fn (string $q): array => array_column(
            $this->api('GET', '/links?q='.urlencode($q))->json('items'),
            'title',
        );
        self::assertSame(['Poster'], $find('summer'));
        self::assertSame(['Poster'], $find('pier'));
        self::assertSame(['Poster', 'Newsletter'], $find('velmar'));
        self::assertSame([], $find('velmar%'));
    }

    public function test_programs_are_told_by_the_list_that_is_shipped(): void
    {
        // the open list itself, crawler-user-agents: what its instances call themselves, its patterns must find
        $list = json_decode(
            (string) file_get_contents(base_path('node_modules/crawler-user-agents/crawler-user-agents.json')),
            true,
        );
        $known = require base_path('redirector/programs.php');
        $asked = 0;
        foreach ($list as ['pattern' => $pattern, 'instances' => $instances]) {
            foreach (array_slice($instances, 0, 3) as $agent) {
                self::assertTrue(Programs::isOne($known, $agent), "{$pattern}: {$agent}");
                $asked++;
            }
        }
        self::assertGreaterThan(1000, $asked);
        self::assertFalse(Programs::isOne($known, self::AGENT));
        self::assertFalse(Programs::isOne($known, ''));
    }
}
