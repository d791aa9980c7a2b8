<?php

namespace Tests\Feature;

use App\Accounts\Misfit;
use App\Arrivals\Sites;
use App\Arrivals\Taken;
use App\Collecting\Incoming;
use App\Collecting\Row;
use App\Models\Account;
use App\Models\Node;
use App\Models\Role;
use App\Sheets\Files\Form;
use App\Sheets\Files\Opening;
use App\Sheets\Files\Writing;
use App\SignIn\Invitations;
use App\SignIn\Totp;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\LimitsOfCollecting;
use Tests\LimitsOfFeeds;
use Tests\SheetMapOf;
use Tests\TestCase;
use Vestigon\Core\Document\UnusableInput;

/** Walks docs/limits.md: every limit is there, with its number, and gives the answer that is promised. */
final class LimitsTest extends TestCase
{
    use LimitsOfCollecting, LimitsOfFeeds;

    /** @return array<string, array{string, string}> limit → number and answer, as the page tells them */
    private static function page(): array
    {
        preg_match_all(
            '/^\| `([a-z_]+)` \| ([^|]+) \| [^|]+ \| ([^|]+) \|$/m',
            (string) file_get_contents(dirname(__DIR__, 2).'/docs/limits.md'),
            $rows,
            PREG_SET_ORDER,
        );

        return array_map(static fn (array $r): array => [$r[2], $r[3]], array_column($rows, null, 1));
    }

    private const IN_BYTES = [
        'body',
        'query',
        'unpacked',
        'feed_bytes',
        'intake_bytes',
        'collect_bytes',
        'record_bytes',
    ];

    private const IN_A_MINUTE = ['person', 'heavy', 'stranger', 'collect_site', 'collect_address'];

    private static function words(string $limit, mixed $number): string
    {
        return match (true) {
            is_array($number) && isset($number[1]) => "{$number[0]} in {$number[1]} minutes",
            is_array($number) => self::bytes(max($number)),
            in_array($limit, self::IN_A_MINUTE, true) => number_format($number).' in a minute',
            in_array($limit, self::IN_BYTES, true) => self::bytes($number),
            in_array($limit, ['session_idle', 'session_whole', 'reset_link', 'invitation'], true) => $number
                .' minutes',
            default => number_format($number),
        };
    }

    private static function bytes(int $bytes): string
    {
        return $bytes >= 1 << 20 ? ($bytes >> 20).' MB' : ($bytes >> 10).' KB';
    }

    public function test_the_page_tells_every_limit_with_its_number(): void
    {
        self::assertEquals(
            array_map(
                static fn (mixed $n, string $limit): array => [$limit, self::words($limit, $n)],
                config('limits'),
                array_keys(config('limits')),
            ),
            array_map(
                static fn (array $row, string $limit): array => [$limit, $row[0]],
                self::page(),
                array_keys(self::page()),
            ),
        );
        preg_match_all(
            '/^\| `(api[^`]+)` \| ([^|]+) \|$/m',
            (string) file_get_contents(base_path('docs/limits.md')),
            $calls,
            PREG_SET_ORDER,
        );
        self::assertSame(array_map(self::bytes(...), config('limits.bodies')), array_column($calls, 2, 1));
        self::assertSame(
            [config('limits.text'), config('limits.name')],
            [Misfit::LONGEST_TEXT, Misfit::LONGEST_NAME],
        );
        self::assertSame(
            [config('limits.session_idle'), config('limits.reset_link')],
            [config('session.lifetime'), config('auth.passwords.users.expire')],
        );
        self::assertSame(
            32,
            (int) filter_var(
                (string) preg_replace(
                    '/.*client_max_body_size (\d+)m.*/s',
                    '$1',
                    (string) file_get_contents(base_path('bin/lib/nginx.conf')),
                ),
                FILTER_VALIDATE_INT,
            ),
            'the web server has the same',
        );
    }

    /** @return iterable<string, array{string}> */
    public static function limits(): iterable
    {
        foreach (array_keys(self::page()) as $limit) {
            yield $limit => [$limit];
        }
    }

    #[DataProvider('limits')]
    public function test_beyond_a_limit_comes_the_answer_that_is_promised(string $limit): void
    {
        $answer = self::page()[$limit][1];
        $got = $this->{'beyond_'.$limit}();
        if ($got instanceof TestResponse) {
            self::assertSame((int) $answer, $got->status(), substr((string) $got->getContent(), 0, 300));
            self::assertNotSame('', (string) $got->json('message'));
            if (str_contains($answer, 'Retry-After')) {
                self::assertGreaterThan(0, (int) $got->headers->get('Retry-After'));
            }
        } else {
            self::assertSame($answer, $got);
        }
    }

    private function beyond_invitation_address(): TestResponse
    {
        for ($i = 0; $i < config('limits.invitation_address')[0]; $i++) {
            $this->joins('no such link')->assertStatus(404);
        }

        return $this->joins('no such link');
    }

    private function beyond_invitation(): TestResponse
    {
        [, $link] = app(Invitations::class)->make($this->client, $this->editor, null, Role::Viewer);
        $token = explode('#', $link)[1];
        $this->joins($token)->assertOk();
        $this->travel(config('limits.invitation') + 1)->minutes();

        return $this->joins($token);
    }

    private function joins(string $token): TestResponse
    {
        return $this->postJson('/api/v1/invitations/look', ['token' => $token], ['Origin' => config('app.url')]);
    }

    private function beyond_intake_bytes(): TestResponse
    {
        return $this->api('POST', "/intakes/{$this->intake()}/files", [
            'name' => 'a.csv',
            'bytes' => config('limits.intake_bytes') + 1,
        ]);
    }

    private function beyond_intake_files(): TestResponse
    {
        config(['limits.intake_files' => 1]);
        $intake = $this->intake();
        $this->api('POST', "/intakes/{$intake}/files", ['name' => 'a.csv', 'bytes' => 1])->assertStatus(201);

        return $this->api('POST', "/intakes/{$intake}/files", ['name' => 'b.csv', 'bytes' => 1]);
    }

    private function intake(): int
    {
        return $this->api('POST', '/intakes', ['dialect' => 'mossfeed', 'number' => 'M-1', 'name' => 'M'])->json('id');
    }

    private function beyond_body(): TestResponse
    {
        return $this->api('PUT', '/rules', ['hosts' => [str_repeat('a', 256 * 1024)]]);
    }

    private function beyond_bodies(): TestResponse
    {
        return $this->actingAs($this->editor)->call(
            'POST',
            "/api/v1/clients/{$this->client->id}/changes/1/sheet",
            server: [
                'CONTENT_TYPE' => 'application/json',
                'HTTP_ACCEPT' => 'application/json',
                'HTTP_CONTENT_LENGTH' => (string) (33 << 20),
                'CONTENT_LENGTH' => (string) (33 << 20),
            ],
            content: '{}',
        );
    }

    private function beyond_values(): TestResponse
    {
        return $this->api('POST', '/accounts/1/edits', ['what' => ['slots' => array_fill(0, 20_001, 'suffix')]]);
    }

    private function beyond_depth(): TestResponse
    {
        $deep = [];
        for ($i = 0; $i < 40; $i++) {
            $deep = [$deep];
        }

        return $this->api('POST', '/platforms/trial', ['x' => $deep]);
    }

    private function beyond_query(): TestResponse
    {
        return $this->api('GET', '/search?q='.str_repeat('a', 4096));
    }

    private function beyond_person(): TestResponse
    {
        config(['limits.person' => 3]);

        return $this->often(fn () => $this->api('GET', '/running'), 3);
    }

    private function beyond_heavy(): TestResponse
    {
        config(['limits.heavy' => 3]);

        return $this->often(fn () => $this->api('POST', '/changes', []), 3);
    }

    private function beyond_collect_site(): TestResponse
    {
        config(['limits.collect_site' => 3]);

        return $this->often(fn () => $this->postJson('/in/'.str_repeat('k', 24)), 3);
    }

    private function beyond_collect_address(): TestResponse
    {
        config(['limits.collect_address' => 3]);

        return $this->often(fn () => $this->postJson('/in/'.Str::random(24)), 3);
    }

    private function beyond_stranger(): TestResponse
    {
        config(['limits.stranger' => 3]);

        return $this->often(fn () => $this->getJson('/api/v1/session'), 3);
    }

    private function beyond_sign_in_account(): TestResponse
    {
        return $this->often(
            fn () => $this->here('/session', ['email' => $this->editor->email, 'password' => 'x']),
            10,
        );
    }

    private function beyond_sign_in_address(): TestResponse
    {
        $n = 0;

        return $this->often(function () use (&$n) {
            return $this->here('/session', ['email' => 'a'.$n++.'@nowhere.example', 'password' => 'x']);
        }, 40);
    }

    private function beyond_code_account(): TestResponse
    {
        $this->editor->forceFill(['second_factor' => base64_encode(Totp::newSecret())])->save();
        $this->here('/session', ['email' => $this->editor->email, 'password' => 'tide-table'])->assertStatus(202);

        return $this->often(fn () => $this->here('/session/code', ['code' => 'none']), 6);
    }

    private function beyond_reset_account(): TestResponse
    {
        return $this->often(fn () => $this->here('/password/forgotten', ['email' => 'a@nowhere.example']), 3);
    }

    private function beyond_reset_address(): TestResponse
    {
        $n = 0;

        return $this->often(function () use (&$n) {
            return $this->here('/password/forgotten', ['email' => 'a'.$n++.'@nowhere.example']);
        }, 20);
    }

    private function beyond_session_idle(): TestResponse
    {
        $this->here('/session', ['email' => $this->editor->email, 'password' => 'tide-table'])->assertOk();
        $this->app['auth']->forgetGuards();
        $this->flushSession(); // what the store does with a session whose time is over

        return $this->getJson('/api/v1/session', ['Origin' => config('app.url')]);
    }

    private function beyond_session_whole(): TestResponse
    {
        $this->here('/session', ['email' => $this->editor->email, 'password' => 'tide-table'])->assertOk();
        $this->travel(721)->minutes();

        return $this->getJson('/api/v1/session', ['Origin' => config('app.url')]);
    }

    private function beyond_reset_link(): TestResponse
    {
        $token = \Illuminate\Support\Facades\Password::broker()->createToken($this->editor);
        $this->travel(61)->minutes();

        return $this->here('/password/reset', [
            'email' => $this->editor->email,
            'token' => $token,
            'password' => 'another tide table',
        ]);
    }

    private function beyond_columns(): string
    {
        return $this->sheet(['limits.columns' => 3], ["a,b,c,d\n", 'has 4 columns; at most 3']);
    }

    private function beyond_sheet_map_tables(): TestResponse
    {
        $map = SheetMapOf::ads('mossfeed');

        return $this->api('POST', '/sheet-maps', ['tables' => array_fill(0, 51, $map['tables'][0])] + $map);
    }

    private function beyond_unpacked(): string
    {
        ['path' => $file] = Writing::files(
            [
                'x.xlsx' => [
                    [
                        'title' => 'x',
                        'form' => new Form('xlsx'),
                        'rows' => static function (): iterable {
                            for ($i = 0; $i < 2000; $i++) {
                                yield [str_repeat('a', 1000)];
                            }
                        },
                    ],
                ],
            ],
            'x',
        );
        $content = (string) file_get_contents($file);
        unlink($file);

        return $this->sheet(['limits.unpacked' => 1 << 20], [$content, 'unpacks to more than 1 MB']);
    }

    private function beyond_arrival_url(): string
    {
        $site = $this->client->collectors()->create(['site' => 's', 'credentials' => 'c']);
        $rows = Row::all(
            app(Sites::class)->of($site),
            [
                Incoming::read(
                    [
                        'id' => 1,
                        'at' => '2026-10-05T09:00:00Z',
                        'kind' => 'view',
                        'url' => 'https://v.example/?'.str_repeat('ä', 20_000),
                    ],
                    's',
                ),
            ],
        );
        self::assertSame(16_000, mb_strlen($rows[0]['url']));

        return 'cut';
    }

    private function beyond_arrival_pairs(): string
    {
        $url = 'https://v.example/?'.str_repeat('&', 16_000);
        $pieces = Taken::apart($url, [], []);
        self::assertSame([201, $url], [count($pieces), implode('', array_column($pieces, 'text'))]);

        return 'cut';
    }

    private function beyond_text(): string
    {
        [$account, $ad] = $this->ad();
        $this->api('POST', "/accounts/{$account->id}/edits", [
            'over' => ['nodes' => [$ad->id]],
            'what' => [
                'kind' => 'replace',
                'slots' => ['landing'],
                'pattern' => true,
                'find' => '(?=.)',
                'with' => str_repeat('x', 2000),
            ],
        ])
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'at most 65,535 can be kept'));
        $this->api('POST', "/accounts/{$account->id}/edits", [
            'over' => (object) [],
            'what' => [
                'kind' => 'paste',
                'cells' => "number\tlanding\n{$ad->external_id}\t".str_repeat('x', 70_000),
            ],
        ])->assertStatus(422);

        return '422; in an import the element is set apart, with the reason'; // GoneTest
    }

    private function beyond_name(): string
    {
        [$account, $ad] = $this->ad();
        $this->api('POST', '/changes', [
            'account' => $account->id,
            'title' => 'x',
            'texts' => [['node' => $ad->id, 'slot' => 'custom', 'custom' => str_repeat('n', 192), 'text' => 'x']],
        ])->assertStatus(422);

        return '422; in an import the element is set apart'; // GoneTest
    }

    /** @return array{Account, Node} */
    private function ad(): array
    {
        $this->planned();
        $account = $this->imported();

        return [$account, Node::query()->where('is_ad', true)->firstOrFail()];
    }

    /**
     * @param array<string, int> $limits
     * @param array{string, string} $of content, what is said
     */
    private function sheet(array $limits, array $of): string
    {
        config($limits);
        $path = (string) tempnam(sys_get_temp_dir(), 'limits');
        file_put_contents($path, $of[0]);
        $left = glob(sys_get_temp_dir().'/limits*') ?: [];
        try {
            foreach (Opening::tables($path, 'x.csv') as $table) {
                iterator_to_array($table->rows(), false);
            }
            self::fail('it was read');
        } catch (UnusableInput $e) {
            self::assertStringContainsString($of[1], $e->getMessage());
        }
        self::assertSame($left, glob(sys_get_temp_dir().'/limits*') ?: [], 'nothing stays behind');
        unlink($path);

        return '422';
    }

    private function often(\Closure $call, int $times): TestResponse
    {
        for ($i = 0; $i < $times; $i++) {
            self::assertNotSame(429, $call()->status(), "call {$i}");
        }

        return $call();
    }

    /** @param array<string, mixed> $body */
    private function here(string $path, array $body): TestResponse
    {
        return $this->postJson("/api/v1{$path}", $body, ['Origin' => config('app.url')]);
    }
}
