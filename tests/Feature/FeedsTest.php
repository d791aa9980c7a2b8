<?php

namespace Tests\Feature;

use App\Feeds\Files\Opening;
use App\Feeds\Files\Piece;
use App\Jobs\FetchFeed;
use App\Jobs\TakeFeed;
use App\Models\Feed;
use App\Models\FeedDraft;
use App\Models\Role;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** Product lists: read in every form, worked on, held where they can't be trusted, and handed on. */
final class FeedsTest extends TestCase
{
    private const RULES = [
        ['title' => 'all', 'do' => [['set' => 'utm_source', 'parts' => [['text' => 'tidepool']]]]],
        [
            'title' => 'paid',
            'links' => ['ad_link'],
            'do' => [['set' => 'utm_medium', 'parts' => [['text' => 'cpc']]]],
        ],
    ];

    private const READS = [
        'form' => 'delimited',
        'id' => 'id',
        'links' => [['column' => 'link', 'kind' => 'unpaid'], ['column' => 'ad_link', 'kind' => 'paid']],
    ];

    protected function tearDown(): void
    {
        File::deleteDirectory(storage_path('feeds'));
        parent::tearDown();
    }

    private static function list(int $items, string $end = "\r\n"): string
    {
        $list = "id,title,link,ad_link{$end}";
        for ($i = 1; $i <= $items; $i++) {
            $page = "https://velmar.example/t/{$i}";
            $list .= "T{$i},\"Ticket, \"\"{$i}\"\"\",{$page},{$page}?a=~{$end}";
        }

        return $list;
    }

    private function feed(string $list, ?string $name = null): Feed
    {
        $id = $this->api('POST', '/feeds', ['name' => $name ?? 'Tickets'])
            ->assertStatus(201)
            ->json('id');
        $this->giveFile($id, $list)->assertOk();

        return Feed::query()->findOrFail($id);
    }

    private function giveFile(int $feed, string $list): \Illuminate\Testing\TestResponse
    {
        return $this->givePart($feed, $list, 0, strlen($list));
    }

    private function givePart(int $feed, string $list, int $from, int $to): \Illuminate\Testing\TestResponse
    {
        return $this->api('PUT', "/feeds/{$feed}/file", [
            'file' => substr(md5($list), 0, 12),
            'bytes' => strlen($list),
            'from' => $from,
            'content' => base64_encode(substr($list, $from, $to - $from)),
        ]);
    }

    /** @param list<mixed> $rules */
    private function draft(Feed $feed, array $rules = self::RULES): FeedDraft
    {
        $id = $this->api('POST', "/feeds/{$feed->id}/drafts", [
            'rules' => $rules,
            'reads' => $feed->refresh()->reads,
            'why' => 'as agreed',
        ])
            ->assertStatus(201)
            ->json('id');

        return FeedDraft::query()->findOrFail($id);
    }

    private function out(Feed $feed, array $headers = []): \Illuminate\Testing\TestResponse
    {
        $path = (string) parse_url((string) $feed->refresh()->outAddress(), PHP_URL_PATH);

        return $this->withHeaders($headers)->get($path);
    }

    private static function content(\Illuminate\Testing\TestResponse $answer): string
    {
        return (string) file_get_contents($answer->baseResponse->getFile()->getPathname());
    }

    public function test_what_is_wrong_with_a_list_is_told_where_the_day_begins(): void
    {
        $feed = $this->feed("id,link,ad_link\r\nA,https://v.example/a,https://v.example/a\r\nA,mailto:a,\r\n");
        $feed->update(['reads' => self::READS]);
        $draft = $this->draft($feed);
        $this->api('POST', "/feeds/{$feed->id}/drafts/{$draft->id}/application")->assertOk();
        $told = function (): array {
            DB::table('clients')->update(['troubles_at' => null]);
            $all = collect($this->api('GET', '/troubles')->assertOk()->json('items'))->where('kind', 'feed');

            return $all->whereNull('mendedAt')->pluck('ads', 'what')->all();
        };
        self::assertEquals(
            [
                'items have a number that another has too' => 1,
                'items have no link there (ad_link)' => 1,
                'items have there what is no address of a web page (link)' => 1,
            ],
            $told(),
        );

        $feed->refresh()->update(['problem' => 'The host does not answer.']);
        $this->giveFile(
            $feed->id,
            "id,link,ad_link\r\nA,https://v.example/a,https://v.example/a\r\n",
        )->assertOk();
        $now = array_keys($told());
        self::assertContains('does not come: The host does not answer.', $now);
        self::assertCount(
            1,
            preg_grep('/^held until somebody takes it: .*1 item/', $now) ?: [],
            implode("\n", $now),
        );
    }

    /** @return iterable<string, array{string, string}> */
    public static function files(): iterable
    {
        // the example of the RSS 2.0 specification, shortened (Harvard, rssboard)
        yield 'RSS 2.0' => [
            '<?xml version="1.0"?><rss version="2.0"><channel><title>Liftoff News</title>'.
            '<link>http://liftoff.msfc.nasa.gov/</link><item><title>Star City</title>'.
            '<link>http://liftoff.msfc.nasa.gov/news/2003/news-starcity.asp</link>'.
            '<guid>http://liftoff.msfc.nasa.gov/2003/06/03.html#item573</guid></item><item><title>Space</title>'.
            "<link>http://liftoff.msfc.nasa.gov/?a=1&amp;b=2</link></item>\n</channel></rss>",
            'link',
        ];
        // RFC 4287, section 1.1
        yield 'Atom' => [
            '<?xml version="1.0" encoding="utf-8"?>'.
                '<feed xmlns="http://www.w3.org/2005/Atom"><title>Example Feed</title>'.
            '<link href="http://example.org/"/><entry><title>Atom-Powered Robots Run Amok</title>'.
            '<link href="http://example.org/2003/12/13/atom03"/><id>urn:uuid:1225c695-cfb8-4ebb-aaaa-80da344efa6a</id>'.
            '<updated>2003-12-13T18:30:02Z</updated><summary>Some text.</summary></entry></feed>',
            'link@href',
        ];
        yield 'any element' => [
            "<goods>\n <good id='1'><url><![CDATA[https://a.example/?a=1&b]]></url></good>".
                "<!-- <good> -->\n <good/></goods>",
            'url',
        ];
        // RFC 4180, section 2
        yield 'delimited, quoted' => [
            "id,link\r\naaa,\"b \r\nbb\"\r\n\"z\"\"z\",https://a.example/\r\nxxx,https://b.example/?a",
            'link',
        ];
        yield 'marks in attributes' => [
            '<l><i t="a > b" u="/>"><link rel=\'x>\' href="https://a.example/"/></i><i t="c"><id>2</id></i></l>',
            'link@href',
        ];
        yield 'tabs' => ["id\tlink\n1\thttps://a.example/\n\n2\thttps://b.example/?q=1,2", 'link'];
        yield 'NDJSON' => [
            "{\"id\":1,\"link\":\"https://a.example/\\u00e4\",\"price\":1.0,\"more\":{\"a\":[]}}\n\n".
                "{\"id\": 2, \"link\": null}\n",
            'link',
        ];
    }

    #[DataProvider('files')]
    public function test_pieces_are_the_file_and_a_link_is_put_where_it_stood(
        string $content,
        string $column,
    ): void {
        $path = (string) tempnam(sys_get_temp_dir(), 'feed');
        file_put_contents($path, $content);
        $link = 'https://z.example/?a=1&b=%20"\'<>';
        $all = $changed = '';
        $links = [];
        foreach (Opening::of($path)->pieces() as $piece) {
            self::assertInstanceOf(Piece::class, $piece);
            $all .= $piece->raw();
            $cells = $piece->cells();
            $has = ($cells[$column] ?? '') !== '';
            $changed .= $has ? $piece->with([$column => $link]) : $piece->raw();
            $links = [...$links, ...$has ? [$cells[$column]] : []];
        }
        self::assertSame($content, $all);
        self::assertNotSame([], $links);
        file_put_contents($path, $changed);
        $now = [];
        foreach (Opening::of($path)->pieces() as $piece) {
            $now = [...$now, ...($piece->cells()[$column] ?? '') === '' ? [] : [$piece->cells()[$column]]];
        }
        self::assertSame(array_fill(0, count($links), $link), $now);
        if ($content[0] === '<') {
            // PHP's own reader sees the same
            $read = simplexml_load_string($changed, options: LIBXML_NOCDATA);
            self::assertNotFalse($read);
            $xpath =
                '//*[local-name()="'.
                explode('@', $column)[0].
                '"]'.
                (str_contains($column, '@') ? '/@href' : '/text()');
            $seen = array_map(strval(...), $read->xpath($xpath) ?: []);
            self::assertGreaterThanOrEqual(count($links), count(array_keys($seen, $link, true)));
        }
    }

    public function test_a_line_of_json_stays_byte_for_byte_but_for_its_links(): void
    {
        // RFC 8259, section 13: its first example in one line, with links about it and numbers that PHP has none for
        $line =
            '{ "Image": {"Width": 800,"Thumbnail": {"link": "http://www.example.com/image/481989943","Height": 125},'.
            '"Animated" : false,"IDs": [116, 943, 234, 38793]},"id" :"7","link" : %s,"price":1.10,"far":1e400,'.
            '"many":123456789012345678901234567890,"t":"\u00e4 \\\\" , "x":"} { \"link\": 1",'.
            '"l\u0069nk":%s }'."\r\n";
        $was = sprintf($line, '"https:\/\/a.example\/"', '"https://b.example/"');
        $path = (string) tempnam(sys_get_temp_dir(), 'feed');
        file_put_contents($path, $was);

        $pieces = iterator_to_array(Opening::of($path)->pieces(), false);

        self::assertCount(1, $pieces);
        self::assertSame($was, $pieces[0]->raw());
        self::assertSame('https://b.example/', $pieces[0]->cells()['link'] ?? null);
        $now = $pieces[0]->with(['link' => 'https://c.example/?a="']);
        self::assertSame(sprintf($line, ...array_fill(0, 2, '"https://c.example/?a=\\""')), $now);
    }

    public function test_an_xml_list_is_cut_right_wherever_its_pieces_fall(): void
    {
        mt_srand(11);
        $list = '<list>';
        for ($i = 0; $i < 6000; $i++) {
            $list .= match (mt_rand(0, 5)) {
                0 => '<!-- <item><link>no</link></item> -->',
                1 => "<note><![CDATA[<item>]]></note>\n",
                default => '',
            };
            $list .=
                "<item n=\"{$i}\"><link>https://a.example/{$i}</link><t>".
                str_repeat('x', mt_rand(0, 200)).
                '</t></item>';
        }
        $list .= '</list>';
        $path = (string) tempnam(sys_get_temp_dir(), 'feed');
        file_put_contents($path, $list);
        $all = '';
        $n = 0;
        foreach (Opening::of($path)->pieces() as $piece) {
            $all .= $piece->raw();
            if ($piece->cells() !== null) {
                self::assertSame(
                    [(string) $n, "https://a.example/{$n}"],
                    [$piece->cells()['@n'], $piece->cells()['link']],
                );
                $n++;
            }
        }
        self::assertSame(6000, $n);
        self::assertSame(md5($list), md5($all));
    }

    /** @return iterable<string, array{string, string}> */
    public static function unreadable(): iterable
    {
        yield 'empty' => ["\n", 'is empty'];
        yield 'another form than before' => ['{"id": 1}', 'is ndjson now, and was delimited'];
        yield 'half a file' => ['<list><item><id>1</id></item><item><id>', 'not well-formed'];
        yield 'an entity from outside' => [
            '<!DOCTYPE l [<!ENTITY x SYSTEM "file:///etc/passwd">]><l><item><id>&x;</id></item></l>',
            'document type',
        ];
        yield 'a thousand million laughs' => [
            '<!DOCTYPE l [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;">]><l><item><id>&b;</id></item></l>',
            'document type',
        ];
        yield 'too deep' => [str_repeat('<a>', 70).str_repeat('</a>', 70), 'deep'];
        yield 'too deep behind its items' => [
            '<l><item><id>1</id></item>'.str_repeat('<a>', 40_000).str_repeat('</a>', 40_000).'</l>',
            'depth',
        ];
        yield 'another encoding than it says' => [
            "<?xml version='1.0' encoding='UTF-8'?><l><item>\xE9</item></l>",
            'UTF-8',
        ];
        yield 'an encoding of nobody' => ["<?xml version='1.0' encoding='X-9'?><l/>", 'X-9'];
        yield 'no text' => ["PK\x03\x04\0\0\0", 'no text'];
        yield 'too many columns' => [implode(',', range(1, 201))."\n1", '200 are the most'];
        yield 'a quote without an end' => ["id,link\n1,\"https://a.example/\n2,b\n", 'never closed'];
        yield 'half a line of JSON' => ["{\"id\":1}\n{\"id\":", 'line 2'];
        yield 'packed, and cut off' => [substr((string) gzencode(str_repeat("a,b\n", 1000)), 0, 25), 'not whole'];
    }

    #[DataProvider('unreadable')]
    public function test_what_can_t_be_read_is_said_and_changes_nothing(string $content, string $says): void
    {
        $feed = $this->feed(self::list(3));
        $answer = $this->giveFile($feed->id, $content)->assertStatus(422);
        self::assertStringContainsString($says, $answer->json('message'));
        self::assertSame($feed->kept_id, $feed->refresh()->kept_id);
    }

    public function test_a_file_comes_in_parts_and_goes_on_where_it_was(): void
    {
        $feed = $this->feed(self::list(3));
        $list = self::list(400);
        $half = intdiv(strlen($list), 2);
        $this->givePart($feed->id, $list, 0, $half)->assertStatus(202)->assertJsonPath('received', $half);
        // what came already, what is too early, and what goes beyond the end change nothing
        $this->givePart($feed->id, $list, 0, 10)->assertStatus(202)->assertJsonPath('received', $half);
        $this->givePart($feed->id, $list, $half + 1, $half + 9)->assertStatus(202)->assertJsonPath('received', $half);
        $this->api('PUT', "/feeds/{$feed->id}/file", [
            'file' => substr(md5($list), 0, 12),
            'bytes' => strlen($list),
            'from' => $half,
            'content' => base64_encode($list),
        ])->assertStatus(202)->assertJsonPath('received', $half);
        $this->api('PUT', "/feeds/{$feed->id}/file", [
            'file' => 'a-list-of-ours',
            'bytes' => 9,
            'from' => 0,
            'content' => '-',
        ])->assertStatus(422);
        self::assertSame(3, $feed->refresh()->kept?->items);

        $this->givePart($feed->id, $list, $half, strlen($list))
            ->assertOk()
            ->assertJsonPath('received', strlen($list))
            ->assertJsonPath('feed.kept.items', 400);

        self::assertStringEqualsFile((string) $feed->refresh()->kept?->setRelation('feed', $feed)->path(), $list);
        self::assertSame([], glob("{$feed->folder()}/{put-,whole}*", GLOB_BRACE));
    }

    public function test_a_large_file_is_read_by_a_worker_who_says_what_is_wrong_with_it(): void
    {
        $feed = $this->feed(self::list(3));
        $row = "1,https://a.example/\n";
        foreach (['id,link' => null, '<list>' => 'not well-formed'] as $head => $wrong) {
            $list = "{$head}\n".str_repeat($row, intdiv(33 << 20, strlen($row)));
            $part = 4 << 20;
            for ($from = 0; $from < strlen($list); $from += $part) {
                $told = $this->givePart($feed->id, $list, $from, min($from + $part, strlen($list)))->assertStatus(202);
            }
            self::assertSame(strlen($list), $told->json('received'));
            $feed->refresh();
            $wrong === null
                ? self::assertSame([substr_count($list, $row), null], [$feed->kept?->items, $feed->problem])
                : self::assertStringContainsString($wrong, (string) $feed->problem);
        }
    }

    public function test_of_a_worker_who_died_over_a_list_it_is_said_and_what_was_there_stays(): void
    {
        $feed = $this->feed(self::list(3));
        $file = "{$feed->folder()}/whole";
        file_put_contents($file, self::list(5));
        foreach ([new TakeFeed($feed->id, $file), new FetchFeed($feed->id)] as $job) {
            $feed->update(['problem' => null]);
            $job->failed();
            $told = $this->api('GET', "/feeds/{$feed->id}")->assertOk();
            self::assertStringContainsString('by a fault of ours', (string) $told->json('problem'));
            self::assertSame($feed->kept_id, $feed->refresh()->kept_id);
        }
        self::assertFileDoesNotExist($file);
    }

    public function test_lists_in_other_encodings_and_packed_are_read(): void
    {
        foreach (
            [
                "id;titel;link\n1;\xC4rmel;https://a.example/\n",
                "\xFF\xFE".
                mb_convert_encoding("id;titel;link\n1;Ärmel;https://a.example/\n", 'UTF-16LE', 'UTF-8'),
                (string) gzencode("id;titel;link\n1;Ärmel;https://a.example/\n"),
            ] as $content
        ) {
            $feed = $this->feed($content);
            $columns = $this->api('GET', "/feeds/{$feed->id}")
                ->assertOk()
                ->json('columns');
            self::assertSame(['id', 'titel', 'link'], array_column($columns, 'name'));
            self::assertSame('Ärmel', $columns[1]['example']);
        }
        $latin =
            "<?xml version='1.0' encoding='ISO-8859-1'?>".
            "<l><item><id>\xC4</id><link>https://a.example/</link></item></l>";
        $feed = $this->feed($latin);
        self::assertSame('Ä', $this->api('GET', "/feeds/{$feed->id}")->json('columns.0.example'));
    }

    public function test_a_draft_is_worked_out_over_all_applied_handed_on_and_gone_back_from(): void
    {
        $feed = $this->feed(self::list(40));
        self::assertSame(self::READS, $feed->reads);
        $tried = $this->api('POST', "/feeds/{$feed->id}/trial", ['rules' => self::RULES, 'reads' => self::READS]);
        self::assertSame(
            [40, [40, 40], true],
            [$tried->json('items'), $tried->json('rules'), $tried->json('isAll')],
        );
        $draft = $this->draft($feed);
        $told = $this->api('GET', "/feeds/{$feed->id}/drafts/{$draft->id}")->assertOk();
        self::assertSame(['ready', 40], [$told->json('state'), $told->json('result.changed')]);
        self::assertSame([['channel' => 'Paid search', 'links' => 40]], $told->json('result.channels.paid'));
        $this->get('/feeds/'.$feed->secret.'.csv')->assertNotFound();

        $this->api('POST', "/feeds/{$feed->id}/drafts/{$draft->id}/application")->assertOk();
        $this->api('POST', "/feeds/{$feed->id}/drafts/{$draft->id}/application")->assertStatus(409);
        $out = $this->out($feed)->assertOk();
        $expected = (string) preg_replace(
            ['~(https://velmar.example/t/\d+)(?=,)~', '~\?a=\~(?=\r)~'],
            ['$1?utm_source=tidepool', '?a=~&utm_source=tidepool&utm_medium=cpc'],
            self::list(40),
        );
        self::assertSame($expected, self::content($out));

        $second = $this->draft($feed, []);
        $this->api('POST', "/feeds/{$feed->id}/drafts/{$second->id}/application")->assertOk();
        self::assertSame(self::list(40), self::content($this->out($feed))); // what no rule takes, byte for byte
        $back = $this->draft($feed, $draft->rules);
        $this->api('POST', "/feeds/{$feed->id}/drafts/{$back->id}/application")->assertOk();
        self::assertSame($expected, self::content($this->out($feed)));
        $states = $this->api('GET', "/feeds/{$feed->id}/drafts")->json('items.*.state');
        self::assertSame(['applied', 'applied', 'applied'], $states);
    }

    public function test_where_another_person_s_yes_is_wanted_nobody_applies_a_draft_of_their_own(): void
    {
        $feed = $this->feed(self::list(3));
        $this->client->update(['needs_approval' => true]);
        $draft = $this->draft($feed);
        $at = "/feeds/{$feed->id}/drafts/{$draft->id}";
        $this->api('GET', $at)->assertJsonPath('mayApply', false);
        $refused = $this->api('POST', "{$at}/application")->assertStatus(403);
        self::assertStringContainsString('Another editor has to apply it', $refused->json('message') ?? '');
        $this->get("/feeds/{$feed->secret}.csv")->assertNotFound();

        $this->editor = $this->member(Role::Editor, $this->client);
        $this->api('GET', $at)->assertJsonPath('mayApply', true);
        $this->api('POST', "{$at}/application")->assertOk();
        $this->out($feed)->assertOk();
    }

    public function test_a_click_on_a_listing_is_explained_by_the_item_and_its_rules(): void
    {
        $feed = $this->feed(self::list(30));
        $draft = $this->draft($feed);
        $this->api('POST', "/feeds/{$feed->id}/drafts/{$draft->id}/application")->assertOk();
        $lists = fn (string $url): array => $this->api('POST', '/urls/senders', ['url' => $url])
            ->assertOk()
            ->json('lists');
        // a click on a listing: the link as it was handed on, and what the listing adds behind it
        $found = $lists('https://velmar.example/t/7?a=~&utm_source=tidepool&utm_medium=cpc&tpcid=4711');
        $said = array_map(
            static fn (array $turn): array => [
                $turn['rule'],
                $turn['title'],
                implode('', array_column($turn['segments'], 'text')),
            ],
            $found[0]['turns'],
        );
        self::assertSame(
            [
                [null, '', 'https://velmar.example/t/7?a=~'],
                [1, 'all', 'https://velmar.example/t/7?a=~&utm_source=tidepool'],
                [2, 'paid', 'https://velmar.example/t/7?a=~&utm_source=tidepool&utm_medium=cpc'],
            ],
            $said,
        );
        self::assertSame(
            [['T7', 'paid']],
            array_map(static fn (array $f): array => [$f['item'], $f['kind']], $found),
        );
        self::assertSame([], $lists('https://velmar.example/t/7?utm_source=other'));
        self::assertSame([], $lists('https://velmar.example/t/77?utm_source=tidepool'));
    }

    public function test_it_is_handed_on_as_rfc_9110_says(): void
    {
        $feed = $this->feed(self::list(5));
        $draft = $this->draft($feed);
        $this->api('POST', "/feeds/{$feed->id}/drafts/{$draft->id}/application")->assertOk();
        $plain = $this->out($feed, ['Accept-Encoding' => 'identity'])->assertOk();
        $packed = $this->out($feed, ['Accept-Encoding' => 'gzip'])
            ->assertOk()
            ->assertHeader('Content-Encoding', 'gzip');
        self::assertSame(self::content($plain), gzdecode(self::content($packed)));
        self::assertNotSame($plain->headers->get('ETag'), $packed->headers->get('ETag')); // 8.8.3.3
        self::assertStringContainsString('Accept-Encoding', (string) $plain->headers->get('Vary'));
        $tag = (string) $plain->headers->get('ETag');
        $same = ['Accept-Encoding' => 'identity', 'If-None-Match' => $tag];
        $this->out($feed, $same)->assertStatus(304); // 15.4.5
        $this->giveFile($feed->id, self::list(6))->assertOk();
        $this->out($feed, $same)->assertOk();
        $this->flushHeaders();
        $this->get('/feeds/'.str_repeat('x', 40).'.csv')->assertNotFound();
        $this->api('DELETE', "/feeds/{$feed->id}")->assertNoContent();
        $this->get("/feeds/{$feed->secret}.csv")->assertNotFound();
        $gone = $this->api('GET', '/feeds')->assertJsonPath('items', [])->json('gone');
        self::assertSame([[$feed->id, $feed->name]], array_map(static fn (array $g) => [$g['id'], $g['name']], $gone));
        $this->api('POST', "/feeds/{$feed->id}/return")->assertOk();
        $this->get("/feeds/{$feed->secret}.csv")->assertOk();
        $this->api('GET', '/feeds')->assertJsonPath('gone', []);
    }

    public function test_a_list_whose_file_is_gone_is_said_to_be_away(): void
    {
        $feed = $this->feed(self::list(3));
        $draft = $this->draft($feed);
        $this->api('POST', "/feeds/{$feed->id}/drafts/{$draft->id}/application")->assertOk();
        File::deleteDirectory($feed->folder());
        $this->out($feed)->assertStatus(503)->assertHeader('Retry-After', '60');
        $this->api('GET', "/feeds/{$feed->id}")->assertOk()->assertJsonPath('columns', []);
        $this->api('POST', "/feeds/{$feed->id}/trial", ['rules' => [], 'reads' => self::READS])->assertStatus(422);
        $this->giveFile($feed->id, self::list(3))->assertOk();
        $this->out($feed)->assertOk();
    }

    public function test_a_list_that_has_lost_many_of_its_items_is_held_until_somebody_says_that_it_is_right(): void
    {
        $feed = $this->feed(self::list(100));
        $draft = $this->draft($feed);
        $this->api('POST', "/feeds/{$feed->id}/drafts/{$draft->id}/application")->assertOk();
        $this->giveFile($feed->id, self::list(71))->assertOk()->assertJsonPath('feed.held', null);
        $held = $this->giveFile($feed->id, self::list(40))->assertOk();
        self::assertSame('The list has 40 items, and had 71.', $held->json('feed.held.why'));
        self::assertSame(71, $held->json('feed.kept.items'));
        self::assertSame(72, substr_count(self::content($this->out($feed)), "\n"));
        $copy = $held->json('feed.held.id');
        $this->api('POST', "/feeds/{$feed->id}/copies/{$copy}/acceptance")
            ->assertOk()
            ->assertJsonPath('held', null);
        self::assertSame(41, substr_count(self::content($this->out($feed)), "\n"));
        $this->giveFile($feed->id, "id,title,link,ad_link\n")
            ->assertOk()
            ->assertJsonPath('feed.held.why', 'The list has no items.');
    }

    public function test_samples_show_every_rule_every_combination_and_every_problem(): void
    {
        $list = "id,kind,link\n";
        for ($i = 0; $i < 3000; $i++) {
            $list .= "{$i},".['ticket', 'cabin', 'car'][$i % 3].",https://velmar.example/{$i}\n";
        }
        $list .=
            "7,rare,https://velmar.example/7\n,none,\nx,car,ftp://a.example/\ny,car,https://a.example/?k=1&k=2\n".
            "z,car,https://a.example/?mail=a@b.example\nlong,car,https://a.example/".
            str_repeat('l', 1900).
            "\n";
        $rules = array_map(
            static fn (string $kind): array => [
                'title' => $kind,
                'when' => [['column' => 'kind', 'in' => [$kind]]],
                'do' => [['set' => 'utm_content', 'parts' => [['text' => $kind]]]],
            ],
            ['ticket', 'cabin', 'rare'],
        );
        $told = $this->api('POST', "/feeds/{$this->feed($list)->id}/trial", [
            'rules' => $rules,
            'reads' => ['links' => [['column' => 'link', 'kind' => 'unpaid']]] + self::READS,
        ])->assertOk();
        self::assertSame([1000, 1000, 1], $told->json('rules'));
        self::assertEqualsCanonicalizing([[0], [1], [], [2]], $told->json('combinations.*.rules'));
        self::assertEqualsCanonicalizing(
            ['id-twice', 'no-id', 'no-link', 'not-http', 'key-twice', 'personal-data'],
            $told->json('problems.*.code'),
        );
        $shown = array_merge(...$told->json('samples.*.rules'));
        self::assertEqualsCanonicalizing([0, 1, 2], array_unique($shown));
        foreach ($told->json('problems.*.code') as $code) {
            self::assertContains($code, array_merge(...$told->json('samples.*.problems')));
        }
        self::assertContains('long', $told->json('samples.*.id'));
        self::assertLessThanOrEqual(61, count($told->json('samples')));
    }

    public function test_rules_that_can_t_be_read_are_said_with_their_place(): void
    {
        $feed = $this->feed(self::list(1));
        $rules = [['title' => 'x', 'when' => [['column' => 'id', 'matches' => '(']], 'do' => []]];
        $this->api('POST', "/feeds/{$feed->id}/trial", ['rules' => $rules, 'reads' => self::READS])
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'rules[0].when[0].matches'));
    }
}
