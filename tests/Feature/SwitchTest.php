<?php

namespace Tests\Feature;

use App\Accounts\StoredTexts;
use App\Jobs\DraftChange;
use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Connection;
use App\Models\Node;
use App\Models\Text;
use App\Models\WriteState;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/**
 * What an account switches for all of its ads is read, written, read back, told and taken back like any text of its
 * own.
 */
final class SwitchTest extends TestCase
{
    private Account $account;

    private int $root;

    protected function setUp(): void
    {
        parent::setUp();
        $this->account = $this->imported('PW-118', 'pellworth-search', 'pell-2093');
        $this->planned();
        $this->client->plans()->update(['document' => json_encode([...self::PLAN, 'clickId' => 'required'])]);
        $this->root = (int) Node::query()
            ->where(['account_id' => $this->account->id, 'depth' => 0])
            ->value('id');
    }

    protected function tearDown(): void
    {
        Carbon::setTestNow();
        parent::tearDown();
    }

    /** @return list<array{string, string, string|null, string|null}> */
    private static function switches(Change $change): array
    {
        return $change
            ->writes()
            ->where('kind', 'setting')
            ->get()
            ->map(static fn ($w): array => [$w->name, $w->stage, $w->before, $w->after])
            ->all();
    }

    private function now(): string
    {
        return json_encode(StoredTexts::settings($this->account), JSON_THROW_ON_ERROR);
    }

    private function applied(Change $change): Change
    {
        while (in_array($change->refresh()->status, [ChangeStatus::Ready, ChangeStatus::Tried], true)) {
            $this->api('POST', "/changes/{$change->id}/application")->assertStatus(202);
        }
        self::assertSame(ChangeStatus::Done, $change->status, (string) $change->problem);

        return $change;
    }

    private function byHand(string $setting, ?string $to): Change
    {
        return Change::query()->findOrFail(
            $this->api('POST', '/changes', [
                'account' => $this->account->id,
                'title' => 'Switched',
                'texts' => [['node' => $this->root, 'slot' => 'setting', 'custom' => $setting, 'text' => $to]],
            ])
                ->assertStatus(202)
                ->json('id'),
        );
    }

    public function test_in_line_means_switched_too_first_and_told(): void
    {
        $change = $this->inLine($this->account);
        $switched = self::switches($change);

        self::assertSame(['clickId', 'trial', 'off', 'on'], $switched[0]);
        self::assertContains(
            ['setting' => 'clickId', 'before' => 'off', 'after' => 'on'],
            $change->story['switches'],
        );
        self::assertSame('setting', $change->writes()->orderBy('position')->value('kind'), 'before any text');
        self::assertSame(0, $change->story['states']['after']['untracked']);
        self::assertNotContains('pwcid', array_column($change->story['unmet'], 'key'));

        $this->applied($change);
        self::assertStringContainsString('"clickId":true', $this->now());
        self::assertSame(
            [WriteState::Verified],
            $change->writes()->where('kind', 'setting')->distinct()->pluck('state')->all(),
        );
        self::assertSame(
            count($switched),
            DB::table('ledger')
                ->where(['change_id' => $change->id, 'kind' => 'setting'])
                ->count(),
        );
    }

    public function test_left_alone_it_is_said_why_the_click_id_does_not_come(): void
    {
        $change = Change::query()->findOrFail(
            $this->api('POST', '/changes', [
                'account' => $this->account->id,
                'title' => 'In line',
                'existing' => 'replace',
                'carrier' => 'fewest',
                'switches' => 'leave',
            ])->json('id'),
        );

        self::assertSame([[], []], [self::switches($change), $change->story['switches']]);
        self::assertSame(
            'the click ID is switched off for the account, and switches are to be left alone',
            array_column($change->story['unmet'], 'reason', 'key')['pwcid'] ?? null,
        );
    }

    public function test_a_person_switches_looks_back_and_takes_it_back(): void
    {
        Carbon::setTestNow(now()->addDay());
        $change = $this->applied($this->byHand('autoTags', 'off'));
        self::assertStringContainsString('"autoTags":"off"', $this->now());
        $ad = Node::query()
            ->where(['account_id' => $this->account->id, 'is_ad' => true])
            ->orderBy('position')
            ->value('id');
        $then = $this->api('GET', "/nodes/{$ad}/then?at=".now()->addHour()->toIso8601ZuluString())
            ->assertOk()
            ->json('texts');
        self::assertSame(
            [['off', $change->id]],
            array_values(
                array_map(
                    static fn (array $t): array => [$t['text'], $t['change']],
                    array_filter($then, static fn (array $t): bool => $t['custom'] === 'autoTags'),
                ),
            ),
        );
        $before = $this->api('GET', "/nodes/{$ad}/then?at=".now()->subHour()->toIso8601ZuluString())
            ->assertOk()
            ->json();
        self::assertContains('fill', array_column($before['texts'], 'text'));
        self::assertContains('auto-tag', array_column($before['ribbon'], 'role'), 'as it was switched then');

        Carbon::setTestNow(now()->addDay());
        $back = Change::query()->findOrFail(
            $this->api('POST', "/changes/{$change->id}/reversal")
                ->assertStatus(202)
                ->json('id'),
        );
        $this->applied($back);
        self::assertStringContainsString('"autoTags":"fill"', $this->now());
        self::assertSame(ChangeStatus::TakenBack, $change->refresh()->status);
        self::assertSame(
            ['fill', 'off', 'fill'],
            Text::query()
                ->where(['node_id' => $this->root, 'name' => 'autoTags'])
                ->orderBy('since')
                ->pluck('text')
                ->all(),
        );
    }

    public function test_nobody_waits_for_advice_whose_worker_has_died(): void
    {
        $change = $this->inLine($this->account);
        $given = $change->story['advice'];
        (new DraftChange($change->id))->handle(); // begun again, with all done
        self::assertSame($given, $change->refresh()->story['advice'], 'what was found stays');

        $change->update(['story' => ['advice' => null] + $change->story]);
        (new DraftChange($change->id))->handle();
        self::assertSame([], $change->refresh()->story['advice']);
        self::assertSame(ChangeStatus::Ready, $change->status);

        $change->update(['story' => ['advice' => null] + $change->story]);
        (new DraftChange($change->id))->failed(null);
        self::assertSame([], $change->refresh()->story['advice']);
        self::assertSame(ChangeStatus::Ready, $change->status, 'it is worked out all the same');
    }

    public function test_what_can_not_be_switched_is_refused_with_the_reason(): void
    {
        $with = fn (array $text): string => (string) $this->api('POST', '/changes', [
            'account' => $this->account->id,
            'title' => 'Switched',
            'texts' => [[...['node' => $this->root, 'slot' => 'setting'], ...$text]],
        ])
            ->assertStatus(422)
            ->json('message');
        $campaign = (int) Node::query()
            ->where(['account_id' => $this->account->id, 'depth' => 1])
            ->value('id');

        self::assertSame(
            'Pellworth Search lets nobody switch “delivery”.',
            $with(['custom' => 'delivery', 'text' => 'parallel']),
        );
        self::assertSame(
            'Pellworth Search lets nobody switch “colour”.',
            $with(['custom' => 'colour', 'text' => 'red']),
        );
        self::assertSame(
            'On Pellworth Search, autoTags is one of off, fill, replace.',
            $with(['custom' => 'autoTags', 'text' => 'loud']),
        );
        self::assertSame(
            'Only the account itself is switched, not what stands below it.',
            $with(['node' => $campaign, 'custom' => 'autoTags', 'text' => 'off']),
        );
        self::assertSame(0, Change::query()->count());
    }

    public function test_switched_at_the_platform_meanwhile_nothing_is_written(): void
    {
        $change = $this->byHand('clickId', 'on');
        $this->standins('/edit', [
            'site' => 'pellworth',
            'id' => 'PW-118',
            'set' => ['settings' => ['clickId' => true, 'autoTags' => 'replace']],
        ]);
        $this->api('POST', "/changes/{$change->id}/application")->assertStatus(202);

        self::assertSame(ChangeStatus::Stopped, $change->refresh()->status);
        self::assertStringContainsString(
            'have changed on the platform since the last import',
            (string) $change->problem,
        );
    }

    public function test_the_accounts_list_says_what_can_be_switched_and_how_it_is(): void
    {
        self::assertSame(
            [
                ['setting' => 'clickId', 'now' => 'off', 'choices' => ['on', 'off']],
                ['setting' => 'autoTags', 'now' => 'fill', 'choices' => ['off', 'fill', 'replace']],
            ],
            $this->api('GET', '/accounts')->json('items.0.switches'),
        );
    }

    public function test_where_texts_go_out_in_a_sheet_so_do_switches(): void
    {
        Connection::query()->update(['writes_by' => 'sheet']);
        $change = $this->byHand('autoTags', 'off');
        $this->api('POST', "/changes/{$change->id}/application")->assertStatus(202);
        $sheet = (string) $this->api('GET', "/changes/{$change->id}/sheet?as=csv")
            ->assertOk()
            ->streamedContent();
        self::assertSame("Level,Number,\"Automatic tags\"\r\nAccount,PW-118,off\r\n", $sheet);

        $this->standins('/edit', [
            'site' => 'pellworth',
            'id' => 'PW-118',
            'set' => ['settings' => ['clickId' => false, 'autoTags' => 'off']],
        ]);
        $this->api('POST', "/changes/{$change->id}/sheet", [
            'name' => 'back.csv',
            'content' => base64_encode($sheet),
        ])
            ->assertOk()
            ->assertJson(['taken' => 1]);
        self::assertSame(ChangeStatus::Done, $change->refresh()->status, (string) $change->problem);
    }

    /** Reedrail has a token for a campaign's name as it is: as a slug it is written out on every campaign. */
    public function test_what_a_give_in_the_plan_would_save_is_told_with_the_change_and_with_the_plan(): void
    {
        $account = $this->imported('RR-88', 'reedrail', 'reed-5518', 'saltmarsh-ninefold');
        $change = $this->inLine($account);
        $advice = $change->story['advice'];

        self::assertSame(['utm_campaign', 'as-is'], [$advice[0]['key'] ?? null, $advice[0]['give'] ?? null]);
        self::assertLessThanOrEqual($advice[0]['writes']['now'] / 2, $advice[0]['writes']['then']);
        self::assertSame($change->story['writes'], $advice[0]['writes']['now']);
        self::assertSame(
            [
                [
                    'account' => ['id' => $account->id, 'name' => $account->name],
                    'change' => $change->id,
                    ...$advice[0],
                ],
            ],
            $this->api('GET', '/plan/advice')->assertOk()->json('items'),
        );
    }
}
