<?php

namespace Tests\Feature;

use App\Http\Middleware\FreshSession;
use App\Models\User;
use App\SignIn\Email;
use App\SignIn\Totp;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\Http;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** Ways in: passwords, second factors, forgotten passwords, sessions. */
final class SignInTest extends TestCase
{
    /** @param array<string, mixed> $body */
    private function here(string $method, string $path, array $body = []): TestResponse
    {
        return $this->json($method, "/api/v1{$path}", $body, ['Origin' => config('app.url')]);
    }

    private function signIn(string $email, string $password = 'tide-table'): TestResponse
    {
        return $this->here('POST', '/session', ['email' => $email, 'password' => $password]);
    }

    /** RFC 6238, appendix B: 8 digits, three digests. */
    public function test_codes_are_those_of_the_standard(): void
    {
        $seed = '12345678901234567890';
        $table = [
            59 => ['94287082', '46119246', '90693936'],
            1111111109 => ['07081804', '68084774', '25091201'],
            1111111111 => ['14050471', '67062674', '99943326'],
            1234567890 => ['89005924', '91819424', '93441116'],
            2000000000 => ['69279037', '90698825', '38618901'],
            20000000000 => ['65353130', '77737706', '47863826'],
        ];
        foreach ($table as $seconds => $codes) {
            foreach (['sha1' => 20, 'sha256' => 32, 'sha512' => 64] as $hash => $bytes) {
                $secret = substr(str_repeat($seed, 4), 0, $bytes);
                self::assertSame(
                    $codes[array_search($hash, ['sha1', 'sha256', 'sha512'], true)],
                    (new Totp($secret, 8, $hash))->code(Totp::step($seconds)),
                );
            }
        }
    }

    /** RFC 4226, appendix D; RFC 4648, section 10. */
    public function test_counters_and_base32_are_those_of_the_standards(): void
    {
        $codes = array_map((new Totp('12345678901234567890'))->code(...), range(0, 9));
        self::assertSame(
            ['755224', '287082', '359152', '969429', '338314', '254676', '287922', '162583', '399871', '520489'],
            $codes,
        );
        self::assertSame(
            ['MY', 'MZXQ', 'MZXW6', 'MZXW6YQ', 'MZXW6YTB', 'MZXW6YTBOI'],
            array_map(static fn (string $s): string => (new Totp($s))->base32(), [
                'f',
                'fo',
                'foo',
                'foob',
                'fooba',
                'foobar',
            ]),
        );
    }

    /** Unicode NFKC and case: one account, however it is typed; another letter is another account. */
    public function test_one_account_however_its_address_is_typed(): void
    {
        User::factory()->create(['email' => 'runa@ninefold.example']);
        foreach (['Runa@ninefold.example', '  runa@ninefold.example ', 'ｒｕｎａ@ninefold.example'] as $typed) {
            self::assertSame('runa@ninefold.example', Email::normal($typed));
            $this->signIn($typed)->assertOk();
        }
        $this->signIn('runá@ninefold.example')->assertStatus(422);
    }

    public function test_tries_are_counted_for_the_account_however_it_is_typed_and_for_the_address(): void
    {
        config(['limits.sign_in_account' => [4, 5], 'limits.sign_in_address' => [12, 5]]);
        $email = $this->editor->email;
        $typed = [$email, strtoupper($email), " {$email}", $email];
        foreach ($typed as $spelling) {
            $this->signIn($spelling, 'wrong')->assertStatus(422);
        }
        $refused = $this->signIn($email)->assertStatus(429);
        self::assertGreaterThan(0, (int) $refused->headers->get('Retry-After'));
        for ($i = 0; $i < 8; $i++) {
            $this->signIn("stranger{$i}@nowhere.example", 'wrong')->assertStatus(422);
        }
        $this->signIn('another@nowhere.example')->assertStatus(429);
    }

    public function test_a_right_password_gives_its_tries_back(): void
    {
        config(['limits.sign_in_account' => [3, 5]]);
        for ($i = 0; $i < 6; $i++) {
            $this->signIn($this->editor->email)->assertOk();
            $this->signIn($this->editor->email, 'wrong')->assertStatus(422);
        }
    }

    /** @return iterable<string, array{mixed}> */
    public static function noAddresses(): iterable
    {
        yield 'a list' => [['a@b.example']];
        yield 'an object' => [['x' => 'a@b.example']];
        yield 'a number' => [7];
        yield 'nothing' => [null];
        yield 'very long' => [str_repeat('a', 300)];
    }

    #[DataProvider('noAddresses')]
    public function test_what_is_no_address_is_refused(mixed $email): void
    {
        $this->here('POST', '/session', ['email' => $email, 'password' => 'x'])->assertStatus(422);
        $this->here('POST', '/password/forgotten', ['email' => $email])->assertStatus(422);
    }

    /** Both compute one digest of the same cost: no clock tells which addresses have accounts. */
    public function test_an_address_that_nobody_has_costs_as_much_and_is_answered_alike(): void
    {
        $computed = [];
        Hash::swap(
            new class($computed) extends \Illuminate\Hashing\HashManager {
                /** @param list<string> $computed */
                public function __construct(public array &$computed)
                {
                    parent::__construct(app());
                }

                public function make(#[\SensitiveParameter] $value, array $options = []): string
                {
                    $this->computed[] = 'digest';

                    return parent::make($value, $options);
                }

                public function check(#[\SensitiveParameter] $value, $hashedValue, array $options = []): bool
                {
                    $this->computed[] = 'digest';

                    return parent::check($value, $hashedValue, $options);
                }
            },
        );
        $answers = [];
        foreach ([$this->editor->email, 'nobody@nowhere.example'] as $email) {
            $computed = [];
            $answer = $this->signIn($email, 'wrong');
            $answers[] = [$answer->status(), $answer->json('message'), $computed];
        }
        self::assertSame($answers[0], $answers[1]);
        self::assertSame(['digest'], $answers[0][2]);
    }

    public function test_signing_in_is_for_our_own_pages(): void
    {
        foreach ([[], ['Origin' => 'http://localhost'], ['Origin' => 'https://evil.example']] as $headers) {
            $this->postJson(
                '/api/v1/session',
                ['email' => $this->editor->email, 'password' => 'tide-table'],
                $headers,
            )
                ->assertStatus(403)
                ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'own pages'));
        }
    }

    public function test_a_second_factor_is_asked_for_and_each_code_and_word_counts_once(): void
    {
        $this->signIn($this->editor->email)->assertOk();
        $secret = $this->here('POST', '/person/second-factor')->assertOk()->json('secret');
        $bytes = self::fromBase32($secret);
        $now = fn (): string => (new Totp($bytes))->code(Totp::step((int) now()->timestamp));
        $this->here('PUT', '/person/second-factor', [
            'code' => '000000',
            'password' => 'tide-table',
        ])->assertStatus(422);
        $words = $this->here('PUT', '/person/second-factor', ['code' => $now(), 'password' => 'tide-table'])
            ->assertOk()
            ->json('recoveryWords');
        self::assertCount(8, $words);
        self::assertStringNotContainsString(
            $secret,
            (string) DB::table('users')->where('id', $this->editor->id)->value('second_factor'),
            'it rests encrypted',
        );

        $owes = function (): void {
            $this->app['auth']->forgetGuards();
            $this->flushSession();
            $this->signIn($this->editor->email)
                ->assertStatus(202)
                ->assertExactJson(['needs' => 'code']);
        };
        $owes();
        $this->here('GET', '/session')->assertStatus(401);
        $this->here('POST', '/session/code', ['code' => '000000'])->assertStatus(422);
        $code = $now();
        $this->here('POST', '/session/code', ['code' => $code])
            ->assertOk()
            ->assertJsonPath('user.secondFactor', true);
        $owes();
        $this->here('POST', '/session/code', ['code' => $code])->assertStatus(422);
        $this->here('POST', '/session/code', ['code' => strtoupper(" {$words[2]} ")])->assertOk();
        $owes();
        $this->here('POST', '/session/code', ['code' => $words[2]])->assertStatus(422);
        $this->travel(6)->minutes();
        $this->here('POST', '/session/code', ['code' => $now()])->assertStatus(409);
        $this->travelBack();
        self::assertSame(7, count($this->editor->refresh()->recovery ?? []));
    }

    public function test_codes_are_not_to_be_guessed(): void
    {
        config(['limits.code_account' => [3, 5]]);
        $this->editor->forceFill(['second_factor' => base64_encode(Totp::newSecret())])->save();
        $this->signIn($this->editor->email)->assertStatus(202);
        for ($i = 0; $i < 3; $i++) {
            $this->here('POST', '/session/code', ['code' => "00000{$i}"])->assertStatus(422);
        }
        $this->here('POST', '/session/code', ['code' => '000009'])
            ->assertStatus(429)
            ->assertHeader('Retry-After');
    }

    public function test_a_forgotten_password_is_changed_by_mail_and_the_link_is_good_once(): void
    {
        $this->here('POST', '/password/forgotten', ['email' => 'nobody@nowhere.example'])->assertStatus(202);
        $said = $this->here('POST', '/password/forgotten', ['email' => strtoupper($this->editor->email)])
            ->assertStatus(202)
            ->json('message');
        $mails = Http::get('http://mailbox.localhost:'.env('STANDINS_PORT').'/messages')
            ->throw()
            ->json('items');
        self::assertCount(1, $mails, 'nobody is written to who has no account');
        self::assertStringContainsString($this->editor->email, $mails[0]['to']);
        self::assertSame(1, preg_match('~/reset#(\S+)~', $mails[0]['text'], $link));
        parse_str($link[1], $values);
        self::assertStringStartsWith('If there is an account', $said);

        $this->here('POST', '/password/reset', [
            'email' => $values['email'],
            'token' => 'x'.$values['token'],
            'password' => 'another tide table',
        ])->assertStatus(422);
        $this->here('POST', '/password/reset', [...$values, 'password' => 'short'])->assertStatus(422);
        $this->here('POST', '/password/reset', [...$values, 'password' => 'another tide table'])->assertOk();
        $this->here('POST', '/password/reset', [...$values, 'password' => 'a third tide table'])->assertStatus(
            422,
        );
        $this->signIn($this->editor->email)->assertStatus(422);
        $this->signIn($this->editor->email, 'another tide table')->assertOk();
    }

    public function test_a_link_is_good_for_an_hour(): void
    {
        $this->here('POST', '/password/forgotten', ['email' => $this->editor->email]);
        preg_match(
            '~/reset#(\S+)~',
            Http::get('http://mailbox.localhost:'.env('STANDINS_PORT').'/messages')->json('items.0.text'),
            $link,
        );
        parse_str($link[1], $values);
        $this->travel(61)->minutes();
        $this->here('POST', '/password/reset', [...$values, 'password' => 'another tide table'])->assertStatus(
            422,
        );
    }

    public function test_a_session_ends_after_its_whole_time_however_busy_it_is(): void
    {
        $this->signIn($this->editor->email)->assertOk();
        for ($hour = 1; $hour <= 11; $hour++) {
            $this->travel(1)->hours();
            $this->here('GET', '/session')->assertOk();
        }
        $this->travel(61)->minutes();
        $this->here('GET', '/session')->assertStatus(401);
        $this->app['auth']->forgetGuards();
        $this->here('GET', '/session')->assertStatus(401);
    }

    public function test_ones_own_sessions_are_seen_and_ended_and_nobody_elses(): void
    {
        $session = fn (string $id, int $user): bool => DB::table('sessions')->insert([
            'id' => $id,
            'user_id' => $user,
            'ip_address' => '192.0.2.7',
            'user_agent' => "A browser {$id}",
            'payload' => '',
            'last_activity' => time(),
        ]);
        $other = User::factory()->create();
        $session('mine1', $this->editor->id);
        $session('mine2', $this->editor->id);
        $session('theirs', $other->id);
        $this->actingAs($this->editor)->withSession([FreshSession::SINCE => now()->timestamp]);
        $shown = $this->here('GET', '/person')->assertOk()->json('sessions');
        self::assertEqualsCanonicalizing(['A browser mine1', 'A browser mine2'], array_column($shown, 'browser'));
        self::assertStringNotContainsString(
            'mine1',
            implode(' ', array_column($shown, 'id')),
            'the number of a session is the key to it',
        );
        $theirs = substr(hash('sha256', 'theirs'), 0, 32);
        $this->here('DELETE', "/person/sessions/{$theirs}")->assertStatus(404);
        $this->here('DELETE', "/person/sessions/{$shown[0]['id']}")->assertStatus(204);
        $this->here('DELETE', '/person/sessions')->assertOk()->assertJsonPath('ended', 1);
        self::assertSame(['theirs'], DB::table('sessions')->pluck('id')->all());
    }

    public function test_a_password_is_changed_by_who_knows_it_and_all_other_sessions_end(): void
    {
        DB::table('sessions')->insert([
            'id' => 'elsewhere',
            'user_id' => $this->editor->id,
            'payload' => '',
            'last_activity' => time(),
        ]);
        $this->signIn($this->editor->email)->assertOk();
        $this->here('PUT', '/person/password', [
            'current' => 'wrong',
            'password' => 'another tide table',
        ])->assertStatus(422);
        $this->here('PUT', '/person/password', ['current' => 'tide-table', 'password' => 'another tide table'])
            ->assertOk()
            ->assertJsonPath('ended', 1);
        self::assertTrue(Hash::check('another tide table', $this->editor->refresh()->password));
    }

    public function test_sign_ins_roles_and_rules_are_audited_for_good(): void
    {
        $this->signIn($this->editor->email, 'wrong');
        $this->signIn($this->editor->email)->assertOk();
        $this->editor->clients()->updateExistingPivot($this->client->id, ['role' => 'owner']);
        $this->api('PUT', '/rules', ['needsApproval' => true, 'hosts' => []])->assertOk();
        $what = DB::table('audit')->orderBy('id')->pluck('what')->all();
        self::assertSame(['role-given', 'sign-in-failed', 'sign-in', 'role-changed', 'rules-changed'], $what);
        self::assertSame(
            ['rules-changed', 'role-changed', 'role-given'],
            array_column($this->api('GET', '/audit')->assertOk()->json('items'), 'what'),
        );
        self::assertStringNotContainsString('tide-table', (string) json_encode(DB::table('audit')->get()));
        foreach (
            [
                fn () => DB::table('audit')->update(['what' => 'x']),
                fn () => DB::table('audit')->delete(),
                fn () => DB::statement('truncate table audit'),
                fn () => DB::statement('alter table audit drop column about'),
            ] as $try
        ) {
            try {
                $try();
                self::fail('the audit was changed');
            } catch (\PDOException $e) {
                self::assertStringContainsString('denied', $e->getMessage());
            }
        }
    }
}
