<?php

namespace Tests\Feature;

use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeWrite;
use App\Models\Node;
use App\Models\Text;
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
        $this->change = Change::query()->findOrFail($this->api('POST', '/changes', ['account' => $this->account->id, 'title' => 'In line', 'reason' => 'why', 'existing' => 'replace', 'carrier' => 'fewest'])->json('id'));
        self::assertSame('ready', $this->change->status);
    }

    private function apply(): void
    {
        $this->api('POST', "/changes/{$this->change->id}/application")->assertStatus(202);
        $this->change->refresh();
    }

    public function test_every_write_is_made_read_back_and_entered_in_the_ledger(): void
    {
        $this->apply();

        self::assertSame('done', $this->change->status, (string) $this->change->problem);
        $writes = $this->change->writes()->get();
        self::assertSame(['verified'], $writes->pluck('state')->unique()->all());
        self::assertSame($writes->pluck('id')->sort()->values()->all(), DB::table('ledger')->pluck('write_id')->sort()->values()->all());
        self::assertSame(0, Node::query()->where('account_id', $this->account->id)->where('state', '<>', 'proven')->count());
        $suffix = Text::query()->whereIn('node_id', Node::query()->whereNull('parent_id')->select('id'))->where('kind', 'suffix')->whereNull('until')->firstOrFail();
        self::assertStringContainsString('utm_term={term}', $suffix->text);
    }

    public function test_what_the_platform_holds_is_what_was_written(): void
    {
        $this->apply();
        $live = fn (): array => DB::table('texts')->join('nodes', 'nodes.id', 'node_id')->whereNull('until')->orderByRaw('external_id, kind, texts.name')->get(['external_id', 'kind', 'texts.name', 'text'])->map(fn (object $t): array => (array) $t)->all();
        $ours = $live();
        Text::query()->delete();
        Node::query()->delete();
        $this->imported();

        self::assertSame($ours, $live());
    }

    public function test_the_same_change_is_not_applied_twice(): void
    {
        $this->apply();
        $this->api('POST', "/changes/{$this->change->id}/application")->assertStatus(409)->assertJsonPath('message', 'This change has been applied. Nothing is left to do.');
        self::assertSame($this->change->writes()->count(), DB::table('ledger')->count());
    }

    public function test_a_version_that_moved_since_the_import_stops_the_change_before_it_writes(): void
    {
        $node = ChangeWrite::query()->where('change_id', $this->change->id)->firstOrFail()->node;
        Node::query()->whereKey($node->id)->update(['version' => 7]);
        $this->apply();

        self::assertSame('stopped', $this->change->status);
        self::assertStringContainsString('Nothing was written', (string) $this->change->problem);
        self::assertStringContainsString($node->name, (string) $this->change->problem);
        self::assertSame(0, DB::table('ledger')->count());
    }

    public function test_a_version_that_moves_meanwhile_fails_that_write_alone(): void
    {
        $this->order('moved', 1);
        $this->apply();

        self::assertSame('partly', $this->change->status);
        $failed = $this->change->writes()->where('state', 'failed')->get();
        self::assertCount(1, $failed);
        self::assertStringContainsString('It has changed on the platform meanwhile', $failed[0]->problem);
        self::assertSame($this->change->writes()->count() - 1, DB::table('ledger')->count());
    }

    public function test_a_platform_that_goes_down_stops_the_change_and_a_second_try_does_the_rest(): void
    {
        $this->order('down', 3);
        $this->apply();
        self::assertSame('stopped', $this->change->status);
        self::assertStringContainsString('Northquay Search is down (it answered 503)', (string) $this->change->problem);

        $this->apply();
        self::assertSame('done', $this->change->status, (string) $this->change->problem);
        self::assertSame($this->change->writes()->count(), DB::table('ledger')->count());
    }

    public function test_an_answer_that_got_lost_is_asked_for_again_and_nothing_is_written_twice(): void
    {
        config(['platforms.timeout' => 0.3]);
        $before = DB::table('texts')->count();
        $this->order('slow', 4, '900'); // the platform carries out what it was sent, but answers too late
        $this->apply();
        self::assertSame('stopped', $this->change->status);
        self::assertStringContainsString('did not answer within 0.3 seconds', (string) $this->change->problem);

        sleep(4); // the late ones are through by then
        config(['platforms.timeout' => 5.0]);
        $this->apply();
        self::assertSame('done', $this->change->status, (string) $this->change->problem);
        self::assertSame($this->change->writes()->count(), DB::table('ledger')->count());
        self::assertGreaterThan($before, DB::table('texts')->count());
    }

    public function test_a_change_is_taken_back_to_the_exact_texts_before(): void
    {
        $live = fn (): array => DB::table('texts')->join('nodes', 'nodes.id', 'node_id')->whereNull('until')->orderByRaw('external_id, kind, texts.name')->get(['external_id', 'kind', 'texts.name', 'text'])->map(fn (object $t): array => (array) $t)->all();
        $before = $live();
        $this->api('POST', "/changes/{$this->change->id}/reversal")->assertStatus(409);
        $this->apply();
        self::assertNotSame($before, $live());

        $back = $this->api('POST', "/changes/{$this->change->id}/reversal")->assertStatus(202)->json('id');
        $this->api('POST', "/changes/{$back}/application")->assertStatus(202);
        self::assertSame('done', Change::query()->findOrFail($back)->status);
        self::assertSame($before, $live());
        self::assertSame(2 * $this->change->writes()->count(), DB::table('ledger')->count());
        Text::query()->delete();
        Node::query()->delete();
        $this->imported();
        self::assertSame($before, $live(), 'and so the platform has it');
    }

    public function test_nonsense_is_called_nonsense(): void
    {
        $this->order('nonsense', 3);
        $this->apply();
        self::assertStringContainsString('answered something that makes no sense (not JSON)', (string) $this->change->problem);
        self::assertSame(0, DB::table('ledger')->count());
    }

    public function test_a_change_of_an_older_plan_is_not_applied(): void
    {
        $this->client->plans()->create(['revision' => 2, 'document' => self::PLAN, 'user_id' => $this->editor->id]);
        $this->api('POST', "/changes/{$this->change->id}/application")->assertStatus(409)->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'The plan has changed'));
    }

    public function test_the_ledger_can_not_be_rewritten(): void
    {
        $this->apply();
        foreach ([fn () => DB::table('ledger')->update(['after' => 'x']), fn () => DB::table('ledger')->delete()] as $try) {
            try {
                $try();
                self::fail('the ledger was changed');
            } catch (QueryException $e) {
                self::assertStringContainsString('append-only', $e->getMessage());
            }
        }
    }
}
