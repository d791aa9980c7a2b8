<?php

namespace Tests\Feature;

use App\Jobs\ProveAccount;
use App\Models\Arrival;
use App\Models\Change;
use App\Models\Role;
use Illuminate\Support\Facades\Queue;
use Tests\Contract;
use Tests\TestCase;
use Vestigon\Core\Plan\KeySets;

/** What people agree on beside the plan: words and channels, in revisions, each from a day on. */
final class AgreementTest extends TestCase
{
    private const C = '/clients/{client}';

    private const WORDS = [
        'format' => 'vestigon.words/1',
        'keys' => [
            'utm_medium' => [
                ['word' => 'cpc', 'means' => 'paid by the click'],
                ['word' => 'ppc', 'retired' => ['since' => '2026-01-01', 'use' => 'cpc']],
            ],
        ],
    ];

    private function save(string $kind, array $document, int $revision = 0, ?string $from = null): void
    {
        $this->api('PUT', "/agreements/{$kind}", ['revision' => $revision, 'fromDay' => $from, 'document' => $document])
            ->assertOk()
            ->assertJsonPath('revision', $revision + 1);
    }

    private function arrived(string $source, string $medium, int $times, string $campaign = ''): void
    {
        $collector = $this->client->collectors()->firstOrCreate(['site' => 'velmar'], ['credentials' => 'x']);
        for ($i = 0; $i < $times; $i++) {
            Arrival::query()->create([
                'client_id' => $this->client->id,
                'collector_id' => $collector->id,
                'external_id' => Arrival::query()->max('external_id') + 1,
                'at' => now()->subDays(3),
                'url' => 'https://v.example/',
                'source' => $source,
                'medium' => $medium,
                'campaign' => $campaign,
                'told_source' => $source,
                'told_medium' => $medium,
            ]);
        }
    }

    public function test_words_are_kept_in_revisions_with_who_and_from_when(): void
    {
        $at = self::C.'/agreements/{kind}';
        $first = $this->api('GET', '/agreements/words')->assertOk();
        Contract::holds($first, 'get', $at);
        self::assertSame([0, null, []], [$first['revision'], $first['fromDay'], $first['revisions']]);

        $this->save('words', self::WORDS, 0, '2026-02-01');
        $this->save('words', ['keys' => []] + self::WORDS, 1);
        $now = $this->api('GET', '/agreements/words')->assertOk();
        self::assertSame([2, 1], array_column($now['revisions'], 'revision'));
        self::assertSame('2026-02-01', $now['revisions'][1]['fromDay']);
        self::assertSame($this->editor->name, $now['revisions'][0]['by']);
        $old = $this->api('GET', '/agreements/words?revision=1')->assertOk();
        self::assertEquals(self::WORDS, $old['document'], 'what was can be gone back to');
        $this->api('GET', '/agreements/words?revision=9')->assertStatus(404);
        $this->api('GET', '/agreements/feelings')->assertStatus(404);
    }

    public function test_key_sets_are_shipped_and_ones_own_are_kept(): void
    {
        $shipped = $this->api('GET', '/agreements/keys')->assertOk()['document'];
        self::assertSame(KeySets::shippedDocument(), $shipped);
        $own = ['title' => 'Ours', 'about' => 'for the shop', 'parameters' => [
            ['key' => 'src', 'parts' => [['text' => 'nq']]],
        ]];
        $this->save('keys', ['sets' => [...$shipped['sets'], $own]] + $shipped);
        self::assertEquals($own, $this->api('GET', '/agreements/keys')['document']['sets'][4]);
        $this->api('PUT', '/agreements/keys', ['revision' => 1, 'document' => ['sets' => [$own, $own]] + $shipped])
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'sets[1].title'));
    }

    public function test_of_two_who_save_at_once_one_is_told(): void
    {
        $this->save('words', self::WORDS);
        $this->api('PUT', '/agreements/words', ['revision' => 0, 'document' => self::WORDS])
            ->assertStatus(409)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'Yours is still here'));
        self::assertSame(1, $this->client->agreements()->count());
    }

    public function test_what_is_wrong_with_words_is_told_with_its_place_and_nothing_is_kept(): void
    {
        $twice = ['keys' => ['utm_medium' => [['word' => 'a'], ['word' => 'a']]]] + self::WORDS;
        $this->api('PUT', '/agreements/words', ['revision' => 0, 'document' => $twice])
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'keys.utm_medium[1].word'));
        self::assertSame(0, $this->client->agreements()->count());
    }

    public function test_words_of_a_day_to_come_do_not_count_yet(): void
    {
        $this->planned();
        $account = $this->imported();
        $this->save('words', ['keys' => ['utm_medium' => [['word' => 'other']]]] + self::WORDS, 0, '2199-01-01');
        $uses = $this->api('GET', '/agreements/words/uses')->json('keys');
        self::assertSame([], array_column($uses, 'words', 'key')['utm_medium']);
        self::assertSame(0, $account->findings()->where('code', 'not-in-vocabulary')->count());
    }

    public function test_all_accounts_are_proven_anew_and_their_values_held_against_the_words(): void
    {
        $this->planned();
        $account = $this->imported();
        $this->save('words', ['keys' => ['utm_campaign' => [['word' => 'none_of_them']]]] + self::WORDS);
        self::assertTrue(
            $account->findings()->where('code', 'not-in-vocabulary')->exists(),
            'the plan makes campaigns of their names',
        );
        Queue::fake();
        $this->save('words', self::WORDS, 1);
        Queue::assertPushed(ProveAccount::class);
    }

    public function test_who_uses_a_word_and_the_change_that_takes_it_away_everywhere(): void
    {
        $this->planned();
        $account = $this->imported();
        $this->save('words', self::WORDS);
        $this->arrived('northquay', 'ppc', 3);
        $this->arrived('northquay', 'CPC', 2);
        $this->arrived('northquay', '2027', 1);

        $uses = $this->api('GET', '/agreements/words/uses')->assertOk();
        Contract::holds($uses, 'get', self::C.'/agreements/words/uses');
        $medium = array_column(array_column($uses['keys'], 'words', 'key')['utm_medium'], null, 'word');
        $told = static fn (array $w): array => [$w['standing'], $w['use'], $w['arrivals']];
        self::assertSame(['retired', 'cpc', 3], $told($medium['ppc']));
        self::assertSame(['unknown', 'cpc', 2], $told($medium['CPC']));
        self::assertSame(['unknown', null, 1], $told($medium['2027']), 'a word that looks like a number');
        self::assertSame(['allowed', null, 0], $told($medium['cpc']));

        $reach = $this->api('POST', '/agreements/words/reach', ['key' => 'utm_medium', 'word' => 'cpc'])->assertOk();
        Contract::holds($reach, 'post', self::C.'/agreements/words/reach');
        self::assertSame([$account->id], array_column($reach['accounts'], 'id'));
        self::assertSame([['platform' => null, 'fallback' => null]], $reach['plan']);

        $drafted = $this->api('POST', '/agreements/words/changes', [
            'key' => 'utm_medium',
            'word' => 'cpc',
            'use' => 'paid-search',
        ])->assertStatus(201);
        Contract::holds($drafted, 'post', self::C.'/agreements/words/changes');
        $change = Change::query()->findOrFail($drafted['changes'][0]);
        self::assertSame($reach['accounts'][0]['texts'], $change->writes()->where('stage', 'rest')->count());
        $write = $change->writes()->where('stage', 'rest')->firstOrFail();
        self::assertMatchesRegularExpression('/utm_medium=paid-search(&|#|$)/', (string) $write->after);
        $this->api('POST', '/agreements/words/changes', ['key' => 'utm_medium', 'word' => 'nowhere', 'use' => 'x'])
            ->assertStatus(422);
    }

    public function test_any_click_is_tried_on_the_rules_and_every_rule_says_what_held(): void
    {
        $tried = $this->api('POST', '/agreements/channels/trial', [
            'values' => ['utm_source' => 'hearthring', 'utm_medium' => 'cpc'],
        ])->assertOk();
        Contract::holds($tried, 'post', self::C.'/agreements/channels/trial');
        self::assertSame('Paid social', $tried['channel']);
        self::assertSame($tried['rule'], count($tried['looks']) - 1);
        self::assertFalse($tried['looks'][0]['tests'][0]['holds']);
        self::assertSame([true, true], array_column($tried['looks'][$tried['rule']]['tests'], 'holds'));
    }

    public function test_what_rules_have_taken_and_what_others_would_count_elsewhere(): void
    {
        $this->arrived('northquay', 'cpc', 4);
        $this->arrived('hearthring', 'cpc', 3);
        $this->arrived('poster', 'qr', 2);
        $caught = $this->api('GET', '/agreements/channels/caught')->assertOk();
        Contract::holds($caught, 'get', self::C.'/agreements/channels/caught');
        self::assertSame([7, 2], [array_sum($caught['rules']), $caught['otherwise']]);

        $channels = $this->api('GET', '/agreements/channels')->json('document');
        array_unshift($channels['rules'], ['channel' => 'Print', 'all' => [['key' => 'medium', 'in' => ['qr']]]]);
        $shift = $this->api('POST', '/agreements/channels/shift', ['document' => $channels]);
        self::assertSame(200, $shift->status(), (string) $shift->getContent());
        Contract::holds($shift, 'post', self::C.'/agreements/channels/shift');
        self::assertSame(7, $shift['stays']);
        self::assertSame(
            [['Other', 'Print', 2, 1]],
            array_map(
                static fn (array $f): array => [$f['from'], $f['to'], $f['arrivals'], $f['count']],
                $shift['flows'],
            ),
        );
        self::assertSame('poster', $shift['flows'][0]['lines'][0]['values']['utm_source']);

        $this->save('channels', $channels);
        $tried = $this->api('POST', '/agreements/channels/trial', ['values' => ['utm_medium' => 'qr']]);
        self::assertSame('Print', $tried['channel']);
        $bad = ['rules' => [['channel' => 'A', 'all' => [['key' => 'medium', 'matches' => '(']]]]] + $channels;
        $this->api('PUT', '/agreements/channels', ['revision' => 1, 'document' => $bad])->assertStatus(422);
    }

    public function test_a_plan_is_checked_as_it_is_typed(): void
    {
        $this->save('words', self::WORDS);
        $this->imported();
        $preview = $this->api('POST', '/plan/preview', [
            'document' => [
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => 'optional',
                'channels' => ['search' => 'Paid search', 'social' => 'Paid search', 'native' => 'Paid search'],
                'parameters' => [
                    ['key' => 'utm_source', 'parts' => [['text' => 'North Quay Ads']]],
                    ['key' => 'utm_medium', 'parts' => [['text' => 'ppc']]],
                    ['key' => 'utm_content', 'parts' => [['field' => 'ad.id']]],
                ],
            ],
        ])->assertOk();
        Contract::holds($preview, 'post', self::C.'/plan/preview');
        self::assertEqualsCanonicalizing(
            [
                ['not-lowercase', 'utm_source', 'north_quay_ads'],
                ['space-in-value', 'utm_source', 'north_quay_ads'],
                ['retired-value', 'utm_medium', 'cpc'],
                ['id-without-name', 'utm_content', null],
            ],
            array_map(
                static fn (array $f): array => [$f['code'], $f['key'], $f['fix']['text'] ?? null],
                $preview['findings'],
            ),
        );
        self::assertSame(
            ['Paid search', 'Paid search'],
            [$preview['samples'][0]['channel']['channel'], $preview['samples'][0]['channel']['wanted']],
        );
        self::assertContains('campaign.name', $preview['samples'][0]['could']);
    }

    public function test_what_a_document_says_is_kept_to_the_last_space(): void
    {
        $words = ['keys' => ['utm_term' => [['word' => ' a ', 'means' => '']]]] + self::WORDS;
        $this->save('words', $words);
        self::assertSame(' a ', $this->client->agreements()->value('document')['keys']['utm_term'][0]['word']);
    }

    public function test_others_only_look(): void
    {
        $viewer = $this->member(Role::Viewer, $this->client);
        $words = ['revision' => 0, 'document' => self::WORDS];
        $this->api('GET', '/agreements/channels', as: $viewer)->assertOk();
        $this->api('PUT', '/agreements/words', $words, as: $viewer)->assertStatus(403);
    }
}
