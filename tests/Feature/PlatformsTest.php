<?php

namespace Tests\Feature;

use App\Accounts\Branches;
use App\Accounts\StoredTexts;
use App\Accounts\Trees;
use App\Models\Account;
use App\Models\Finding;
use App\Models\Node;
use Illuminate\Support\Facades\Http;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;
use Vestigon\Core\Trace\Route;

/** Every platform: what its own servers send is what we compute, and a ninth is written without touching code. */
final class PlatformsTest extends TestCase
{
    /**
     * @return iterable<string, array{string, string, string, string, string, int}> dialect, host, account, secret,
     *     customer, ads
     */
    public static function accounts(): iterable
    {
        yield 'Northquay' => ['northquay-search', 'northquay', 'NQ-3310', 'quay-7731', 'saltmarsh-ninefold', 48];
        yield 'Pellworth' => ['pellworth-search', 'pellworth', 'PW-118', 'pell-2093', 'saltmarsh-row', 144];
        yield 'Guildloft' => ['guildloft', 'guildloft', 'GL-12', 'guild-6120', 'saltmarsh-ninefold', 36];
        yield 'Hearthring' => ['hearthring', 'hearthring', 'HR-40', 'hearth-3385', 'saltmarsh-row', 72];
        yield 'Mossfeed' => ['mossfeed', 'mossfeed', 'MF-7', 'moss-9047', 'saltmarsh-row', 96];
        yield 'Reedrail' => ['reedrail', 'reedrail', 'RR-88', 'reed-5518', 'saltmarsh-ninefold', 40];
        yield 'Bannerloom' => ['bannerloom', 'bannerloom', 'BL-5', 'loom-1176', 'saltmarsh-ninefold', 24];
        yield 'Oldgate' => ['oldgate-portal', 'oldgate', 'OG-3', 'gate-4402', 'saltmarsh-row', 24];
    }

    #[DataProvider('accounts')]
    public function test_the_platforms_own_click_is_the_one_we_trace(
        string $dialect,
        string $host,
        string $only,
        string $secret,
        string $customer,
        int $ads,
    ): void {
        $account = $this->imported($only, $dialect, $secret, $customer);
        self::assertSame(
            $ads,
            Node::query()
                ->where(['account_id' => $account->id, 'is_ad' => true])
                ->count(),
        );
        $facts = [
            'term' => 'boat & bed +50%',
            'match' => 'phrase',
            'device' => 'tablet',
            'net' => 'partner',
            'site' => 1,
            'placement' => 'left/2',
            'surface' => 'stream',
            'chance' => '424242',
        ];
        $compared = [];
        foreach (
            Node::query()
                ->where(['account_id' => $account->id, 'is_ad' => true])
                ->orderBy('position')
                ->get() as $i => $ad
        ) {
            if ($ads > 60 && $i % 3 !== 0) {
                continue;
            }
            $answer = Http::withoutRedirecting()->get(
                "http://{$host}.localhost:"
                    .env('STANDINS_PORT')
                    .'/click?'
                    .http_build_query(['ad' => $ad->external_id] + $facts),
            );
            $path = Branches::of($account, $ad->id)->path($ad->id);
            $context = [
                'keyword.text' => $facts['term'],
                'keyword.match' => 'phrase',
                'device' => 'tablet',
                'network' => 'partner',
                'placement' => 'left/2',
                'surface' => 'stream',
                'publisher.name' => 'Knots & Weather',
                'publisher.id' => 'site-1',
                'page.url' => 'https://www.gazette.example/story/1?from=home',
                'product.id' => 'sku-'.$ad->external_id,
                'click.id' => $answer->header('X-Click'),
                'click.random' => '424242',
            ];
            if ($dialect === 'northquay-search') {
                unset($context['product.id']);
                $context =
                    $path->campaignType() === 'text'
                        ? $context
                        : array_diff_key($context, ['keyword.text' => 1, 'keyword.match' => 1]);
            }
            $url = Route::once($path, $context, StoredTexts::settings($account), Trees::hops($account))->clickUrl;
            self::assertSame($answer->header('Location'), $url, $ad->name);
            $compared[preg_replace('/\d+|(nq|gl|hr|rr|pw)\w{16}/', '#', (string) $url)] = true;
        }
        self::assertGreaterThan(2, count($compared), 'different texts were compared');
    }

    public function test_another_customers_account_is_not_handed_out(): void
    {
        $this->imported('NQ-2041');
        $other = Account::query()->firstOrFail();
        self::assertSame(['NQ-2041'], Account::query()->pluck('external_id')->all());
        $token = Http::post('http://northquay.localhost:'.env('STANDINS_PORT').'/v1/token', [
            'client' => 'saltmarsh-ninefold',
            'secret' => 'quay-7731',
        ])->json('token');
        self::assertSame(
            404,
            Http::withToken($token)
                ->get(
                    'http://northquay.localhost:'
                        .env('STANDINS_PORT')
                        ."/v1/accounts/{$other->external_id}/nodes?level=ad",
                )
                ->status(),
        );
    }

    public function test_findings_are_kept_shown_and_mended_wherever_the_same_text_stands(): void
    {
        $this->planned();
        $account = $this->imported('MF-7', 'mossfeed', 'moss-9047');
        $items = $this->api('GET', "/accounts/{$account->id}/findings")->json('items');
        $codes = array_column($items, 'code');
        foreach (['leading-mark', 'unclosed-token', 'stale-literal', 'unknown-token', 'not-lowercase'] as $code) {
            self::assertContains($code, $codes);
        }
        self::assertSame($codes, array_column(Finding::query()->orderBy('position')->get()->all(), 'code'));

        $finding = collect($items)->firstWhere('code', 'unclosed-token');
        $change = $this->api('POST', "/findings/{$finding['id']}/change")
            ->assertStatus(202)
            ->json('id');
        $story = $this->api('GET', "/changes/{$change}")
            ->assertJsonPath('policy.by', 'hand')
            ->assertJsonPath('status', 'ready');
        self::assertSame(1, $story->json('story.writes'));
        self::assertStringContainsString(
            'h=~headline~',
            $this->api('GET', "/changes/{$change}/writes")->json('items.0.after'),
        );
        self::assertNotEmpty($story->json('story.samples'));

        $this->api('POST', "/changes/{$change}/application")->assertStatus(202);
        self::assertSame('done', $this->api('GET', "/changes/{$change}")->json('status'));
        self::assertNotContains(
            'unclosed-token',
            array_column($this->api('GET', "/accounts/{$account->id}/findings")->json('items'), 'code'),
        );
        $this->api('POST', "/findings/{$finding['id']}/change")->assertStatus(404);
    }

    public function test_a_text_on_many_ads_is_mended_on_all_of_them(): void
    {
        $this->planned();
        $account = $this->imported('HR-40', 'hearthring', 'hearth-3385');
        $finding = collect($this->api('GET', "/accounts/{$account->id}/findings")->json('items'))->firstWhere(
            'code',
            'token-case',
        );
        self::assertGreaterThan(5, $finding['count']);
        $change = $this->api('POST', "/findings/{$finding['id']}/change")->json('id');
        self::assertSame($finding['count'], $this->api('GET', "/changes/{$change}")->json('story.writes'));
    }

    public function test_a_change_by_hand_takes_only_the_accounts_own_elements(): void
    {
        $this->planned();
        $account = $this->imported('MF-7', 'mossfeed', 'moss-9047');
        $other = $this->imported();
        $foreign = Node::query()->where('account_id', $other->id)->firstOrFail();
        $this->api('POST', '/changes', [
            'account' => $account->id,
            'title' => 'T',
            'texts' => [['node' => $foreign->id, 'slot' => 'suffix', 'text' => 'a=1']],
        ])
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'must be for an element'));
    }

    public function test_a_ninth_platform_is_written_tried_shared_and_removed(): void
    {
        $yaml = (string) file_get_contents(base_path('tests/data/lanternmail.yaml'));
        $trial = $this->api('POST', '/platforms/trial', [
            'text' => $yaml,
            'nodes' => [
                ['level' => 'account'],
                [
                    'level' => 'letter',
                    'name' => 'Spring & tide',
                    'slots' => ['landing' => 'https://v.example/?s=(:letter:)&x=(:nope:)'],
                ],
            ],
            'context' => [],
        ]);
        self::assertSame(
            [[], 'https://v.example/?s=Spring+%26+tide&x='],
            [$trial->json('problems'), $trial->json('click.clickUrl')],
        );
        self::assertSame(['unknown-token'], array_column($trial->json('click.findings'), 'code'));

        $this->api('POST', '/platforms/trial', ['text' => $yaml, 'nodes' => [['level' => 'campaign']]])
            ->assertOk()
            ->assertJsonPath('click', null)
            ->assertJsonPath('document.id', 'lanternmail');

        $this->api('PUT', '/platforms', ['text' => $yaml, 'revision' => 0])
            ->assertOk()
            ->assertJsonPath('revision', 1);
        $this->api('PUT', '/platforms', ['text' => $yaml, 'revision' => 0])->assertStatus(409);
        self::assertSame('lanternmail', $this->api('GET', '/platforms')->json('items.0.id'));
        foreach (['json', 'yaml'] as $as) {
            $file = $this->api('GET', "/platforms/lanternmail/file?as={$as}")
                ->assertOk()
                ->assertHeader('Content-Disposition', "attachment; filename=\"lanternmail.dialect.{$as}\"")
                ->getContent();
            $this->api('PUT', '/platforms', ['text' => $file, 'revision' => $as === 'json' ? 1 : 2])->assertOk();
        }
        $this->api('DELETE', '/platforms/lanternmail')->assertStatus(204);
        $this->api('GET', '/platforms/lanternmail')->assertStatus(404);
        $this->api('DELETE', '/platforms/mossfeed')->assertStatus(404);
    }

    /** @return iterable<string, array{string, string, string}> a text, the place of a problem, and what is said */
    public static function brokenTexts(): iterable
    {
        $document = static fn (array $change): string => (string) json_encode(
            $change
                + json_decode(
                    (string) file_get_contents(dirname(__DIR__, 2).'/core/dialects/mossfeed.json'),
                    true,
                ),
        );
        yield 'no JSON' => ['{"format": ', '', 'This is not JSON'];
        yield 'no YAML' => ["format: x\n  y: [", 'line 2', 'This is not YAML'];
        yield 'no object' => ['just words', '', 'A document is an object'];
        yield 'a mark that is empty' => [
            $document(['syntax' => ['open' => '', 'close' => '$', 'caseSensitive' => true, 'unknown' => 'keep']]),
            'syntax',
            '',
        ];
        yield 'a family that is none' => [
            $document(['family' => 'radio']),
            'family',
            'One of search, social, native, display, portal is wanted.',
        ];
        yield 'a field that is none' => [
            $document(['tokens' => [['name' => 'x', 'kind' => 'value', 'field' => 'place']]]),
            'tokens[0].field',
            'A neutral field is wanted',
        ];
        yield 'something missing' => [
            (string) json_encode(['format' => 'vestigon.dialect/1', 'id' => 'x']),
            '',
            'Missing: title',
        ];
        yield 'a shipped level that is not there' => [
            $document(['slots' => [['kind' => 'suffix', 'levels' => ['page'], 'inherit' => 'nearest']]]),
            'slots[0].levels[0]',
            '"page" is not one of the levels',
        ];
        yield 'a bomb' => [
            "a: &a [x,x,x,x,x,x,x,x,x]\nb: &b [*a,*a,*a,*a,*a,*a,*a,*a]\nc: &c [*b,*b,*b,*b,*b,*b,*b,*b]\nd: &d "
            ."[*c,*c,*c,*c,*c,*c,*c,*c]\ne: [*d,*d,*d,*d,*d,*d,*d,*d]\nf: [*d,*d,*d,*d,*d,*d,*d,*d]",
            '',
            'too large',
        ];
        yield 'too deep' => [str_repeat('{"a":', 40).'1'.str_repeat('}', 40), '', 'too deep'];
    }

    #[DataProvider('brokenTexts')]
    public function test_says_what_is_wrong_with_a_platform_and_where(
        string $text,
        string $place,
        string $says,
    ): void {
        $problems = $this->api('POST', '/platforms/trial', ['text' => $text])
            ->assertOk()
            ->json('problems');
        self::assertNotEmpty(
            array_filter(
                $problems,
                static fn (array $p): bool => str_starts_with($p['place'], $place)
                    && str_contains($p['message'], $says),
            ),
            (string) json_encode($problems),
        );
        $this->api('PUT', '/platforms', ['text' => $text, 'revision' => 0])
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'What you typed is still here'));
        self::assertSame(0, $this->client->ownDialects()->count());
    }

    public function test_a_shipped_platform_can_not_be_overwritten(): void
    {
        $this->api('PUT', '/platforms', [
            'text' => (string) file_get_contents(base_path('core/dialects/mossfeed.json')),
            'revision' => 0,
        ])
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'is a shipped platform'));
    }
}
