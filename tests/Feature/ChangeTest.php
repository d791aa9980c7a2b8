<?php

namespace Tests\Feature;

use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\ChangeWrite;
use App\Models\Node;
use App\Models\Text;
use App\Models\WriteState;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** A change on its way into the platform, and what can go wrong there. */
final class ChangeTest extends TestCase
{
    private Account $account;

    private Change $change;

    protected function setUp(): void
    {
        parent::setUp();
        $this->account = $this->imported();
        $this->planned();
        $this->change = Change::query()->findOrFail(
            $this->api('POST', '/changes', [
                'account' => $this->account->id,
                'title' => 'In line',
                'reason' => 'why',
                'existing' => 'replace',
                'carrier' => 'fewest',
            ])->json('id'),
        );
        self::assertSame(ChangeStatus::Ready, $this->change->status, (string) $this->change->problem);
    }

    /** Starts it, or goes on: one stage. */
    private function apply(ChangeStatus $expected): void
    {
        $this->api('POST', "/changes/{$this->change->id}/application")->assertStatus(202);
        $this->change->refresh();
        self::assertSame($expected, $this->change->status, (string) $this->change->problem);
    }

    private function carryOut(): void
    {
        $this->apply(ChangeStatus::Tried);
        $this->apply(ChangeStatus::Done);
    }

    /** @return list<array<string, mixed>> every text that is live */
    private function live(?Account $account = null): array
    {
        return DB::table('texts')
            ->join('nodes', 'nodes.id', 'node_id')
            ->where('account_id', ($account ?? $this->change->account)->id)
            ->whereNull('until')
            ->orderByRaw('external_id, kind, texts.name')
            ->get(['external_id', 'kind', 'texts.name', 'text'])
            ->map(fn (object $t): array => (array) $t)
            ->all();
    }

    /** @return list<array<string, mixed>> the same, as the platform has it */
    private function held(): array
    {
        return $this->live($this->imported());
    }

    public function test_first_one_ad_alone_then_the_rest(): void
    {
        $before = $this->live();
        $trial = $this->change->story['trial'];
        self::assertTrue($trial['alone']);
        $this->apply(ChangeStatus::Tried);

        self::assertTrue($this->change->trial['ok'], json_encode($this->change->trial));
        self::assertSame(
            array_column($trial['ads'], 'node'),
            array_column($this->change->trial['clicks'], 'node'),
        );
        foreach ($this->change->trial['clicks'] as $click) {
            self::assertSame([true, true, []], [$click['answered'], $click['arrived'], $click['faults']]);
            self::assertContains(['utm_medium', 'cpc'], $click['arrival']);
        }
        $ids = Node::query()
            ->whereIntegerInRaw('id', array_column($trial['ads'], 'node'))
            ->pluck('external_id')
            ->all();
        $others = static fn (array $texts): array => array_values(
            array_filter($texts, static fn (array $t): bool => ! in_array($t['external_id'], $ids, true)),
        );
        self::assertSame($others($before), $others($this->live()), 'no other element is touched');
        self::assertNotSame($before, $this->live());

        $this->apply(ChangeStatus::Done);
        self::assertTrue($this->change->verified['ok']);
        self::assertNotEmpty($this->change->verified['clicks']);
        self::assertSame(
            0,
            Text::query()
                ->whereIntegerInRaw('node_id', array_column($trial['ads'], 'node'))
                ->whereIn('kind', ['suffix', 'custom'])
                ->whereNull('until')
                ->count(),
            'what the trial said on the ads is tidied up',
        );
    }

    public function test_every_write_is_made_read_back_and_entered_in_the_ledger(): void
    {
        $this->carryOut();

        $writes = $this->change->writes()->get();
        self::assertSame([WriteState::Verified], $writes->pluck('state')->unique()->all());
        self::assertSame(
            $writes->pluck('id')->sort()->values()->all(),
            DB::table('ledger')->pluck('write_id')->sort()->values()->all(),
        );
        self::assertSame(
            0,
            Node::query()->where('account_id', $this->account->id)->where('state', '<>', 'proven')->count(),
        );
        $suffix = Text::query()
            ->whereIn('node_id', Node::query()->whereNull('parent_id')->select('id'))
            ->where('kind', 'suffix')
            ->whereNull('until')
            ->firstOrFail();
        self::assertStringContainsString('utm_term={term}', $suffix->text);
    }

    public function test_what_the_platform_holds_is_what_was_written(): void
    {
        $this->carryOut();
        $ours = $this->live();

        self::assertSame($ours, $this->held());
    }

    public function test_the_same_change_is_not_applied_twice(): void
    {
        $this->carryOut();
        $this->api('POST', "/changes/{$this->change->id}/application")
            ->assertStatus(409)
            ->assertJsonPath('message', 'This change has been applied. Nothing is left to do.');
        self::assertSame($this->change->writes()->count(), DB::table('ledger')->count());
    }

    public function test_a_version_that_moved_since_the_import_stops_the_change_before_it_writes(): void
    {
        $node = ChangeWrite::query()->where('change_id', $this->change->id)->firstOrFail()->node;
        Node::query()
            ->whereKey($node->id)
            ->update(['version' => 7]);
        $this->apply(ChangeStatus::Stopped);

        self::assertStringContainsString('Nothing was written', (string) $this->change->problem);
        self::assertStringContainsString($node->name, (string) $this->change->problem);
        self::assertSame(0, DB::table('ledger')->count());
    }

    public function test_a_version_that_moves_meanwhile_fails_that_write_alone(): void
    {
        $this->apply(ChangeStatus::Tried);
        $this->order('moved', 1);
        $this->apply(ChangeStatus::Partly);

        $failed = $this->change->writes()->where('state', WriteState::Failed)->get();
        self::assertCount(1, $failed);
        self::assertStringContainsString('It has changed on the platform meanwhile', $failed[0]->problem);
        self::assertSame($this->change->writes()->count() - 1, DB::table('ledger')->count());
    }

    public function test_what_has_moved_between_the_trial_and_the_rest_is_left_alone(): void
    {
        $this->apply(ChangeStatus::Tried);
        $write = $this->change->writes()->where('stage', 'rest')->firstOrFail();
        Node::query()
            ->whereKey($write->node_id)
            ->update(['version' => 7]);
        $this->apply(ChangeStatus::Partly);

        self::assertSame(WriteState::Failed, $write->refresh()->state);
        self::assertSame(
            $this->change->writes()->where('node_id', '<>', $write->node_id)->count(),
            $this->change->writes()->where('state', WriteState::Verified)->count(),
        );
    }

    public function test_a_change_is_taken_back_to_the_exact_texts_before(): void
    {
        $before = $this->live();
        $this->api('POST', "/changes/{$this->change->id}/reversal")->assertStatus(409);
        $this->carryOut();
        self::assertNotSame($before, $this->live());

        $this->takenBack();
        self::assertSame($before, $this->live());
        self::assertSame($before, $this->held(), 'and so the platform has it');
    }

    public function test_after_the_trial_alone_it_can_be_taken_back_too(): void
    {
        $before = $this->live();
        $this->apply(ChangeStatus::Tried);
        $this->takenBack();

        self::assertSame(ChangeStatus::TakenBack, $this->change->refresh()->status);
        $this->api('POST', "/changes/{$this->change->id}/application")->assertStatus(409);
        self::assertSame($before, $this->live());
        self::assertSame($before, $this->held());
    }

    public function test_a_part_of_it_can_be_taken_back(): void
    {
        $this->carryOut();
        $write = $this->change
            ->writes()
            ->where(['stage' => 'rest', 'kind' => 'landing'])
            ->firstOrFail();
        $done = $this->live();
        $this->takenBack([$write->id]);

        $ad = $write->node->external_id;
        $now = $this->live();
        self::assertSame(
            [['external_id' => $ad, 'kind' => 'landing', 'name' => '', 'text' => $write->before]],
            array_values(array_filter($now, static fn (array $t): bool => ! in_array($t, $done, true))),
        );
    }

    public function test_taking_back_warns_of_what_has_been_written_again_since(): void
    {
        $this->carryOut();
        $write = $this->change
            ->writes()
            ->where(['stage' => 'rest', 'kind' => 'landing'])
            ->firstOrFail();
        $later = $this->api('POST', '/changes', [
            'account' => $this->account->id,
            'title' => 'Later',
            'texts' => [['node' => $write->node_id, 'slot' => 'landing', 'text' => "{$write->after}&later=1"]],
        ])->json('id');
        $this->api('POST', "/changes/{$later}/application")->assertStatus(202);
        self::assertSame(ChangeStatus::Done, Change::query()->findOrFail($later)->status);

        $back = $this->api('POST', "/changes/{$this->change->id}/reversal")
            ->assertStatus(202)
            ->json('id');
        self::assertSame(
            "{$write->after}&later=1",
            Text::query()
                ->where(['node_id' => $write->node_id, 'kind' => 'landing'])
                ->whereNull('until')
                ->value('text'),
        );
        self::assertStringContainsString(
            'Beware: 1 of these places have been written again since',
            Change::query()->findOrFail($back)->reason,
        );
    }

    /** @param list<int>|null $writes */
    private function takenBack(?array $writes = null): void
    {
        $back = Change::query()->findOrFail(
            $this->api(
                'POST',
                "/changes/{$this->change->id}/reversal",
                $writes === null ? [] : ['writes' => $writes],
            )
                ->assertStatus(202)
                ->json('id'),
        );
        while (in_array($back->refresh()->status, [ChangeStatus::Ready, ChangeStatus::Tried], true)) {
            $this->api('POST', "/changes/{$back->id}/application")->assertStatus(202);
        }
        self::assertSame(ChangeStatus::Done, $back->status, (string) $back->problem);
    }

    public function test_a_change_of_an_older_plan_is_not_applied(): void
    {
        $this->client
            ->plans()
            ->create(['revision' => 2, 'document' => self::PLAN, 'user_id' => $this->editor->id]);
        $this->api('POST', "/changes/{$this->change->id}/application")
            ->assertStatus(409)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'The plan has changed'));
    }

    public function test_the_ledger_can_not_be_rewritten(): void
    {
        $this->carryOut();
        foreach (
            [fn () => DB::table('ledger')->update(['after' => 'x']), fn () => DB::table('ledger')->delete()] as $try
        ) {
            try {
                $try();
                self::fail('the ledger was changed');
            } catch (QueryException $e) {
                self::assertStringContainsString('command denied', $e->getMessage(), 'the application may not');
            }
        }
        $this->expectExceptionMessage('append-only'); // nor may the tables’ owner
        DB::connection('owner')
            ->table('ledger')
            ->update(['after' => 'x']);
    }
}
