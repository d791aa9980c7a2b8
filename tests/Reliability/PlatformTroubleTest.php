<?php

namespace Tests\Reliability;

use App\Models\ChangeStatus;
use App\Models\Node;
use App\Models\WriteState;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;

/** What a platform can do to a rollout. */
final class PlatformTroubleTest extends RolloutCase
{
    /** @return iterable<string, array{string, int, string}> kind, how often, argument */
    public static function passing(): iterable
    {
        yield 'it is down for a moment' => ['down', 2, '503'];
        yield 'an error of its own' => ['down', 1, '500'];
        yield 'it wants us to wait a second' => ['busy', 1, '1'];
        yield 'it is slow' => ['slow', 3, '300'];
        yield 'it takes half of the batch and does not say so' => ['half', 1, ''];
        yield 'it takes half of the batch, again and again' => ['half', 3, ''];
        yield 'it tells each result twice' => ['twice', 2, ''];
        yield 'it tells results in another order' => ['shuffled', 2, ''];
        yield 'it takes ads into review' => ['review', 9, ''];
        yield 'it rejects ads' => ['reject', 9, ''];
        yield 'it answers nonsense once' => ['nonsense', 1, ''];
    }

    #[DataProvider('passing')]
    public function test_trouble_that_passes_is_survived_without_a_person(
        string $kind,
        int $times,
        string $argument,
    ): void {
        $this->tried($this->imported());
        $this->order($kind, $times, $argument);
        $this->apply();

        $this->assertAllIsWell(ChangeStatus::Done);
        if ($kind === 'reject' || $kind === 'review') {
            self::assertTrue(
                Node::query()
                    ->where('standing', $kind === 'reject' ? 'rejected' : 'review')
                    ->exists(),
                'what the platform says of the ads is noted',
            );
        }
    }

    public function test_a_platform_that_stays_down_stops_it_and_a_second_try_does_the_rest(): void
    {
        $this->tried($this->imported());
        $this->order('down', 3);
        $this->apply();
        self::assertSame(ChangeStatus::Stopped, $this->change->status);
        self::assertStringContainsString(
            'Northquay Search is down (it answered 503)',
            (string) $this->change->problem,
        );

        $this->apply();
        $this->assertAllIsWell(ChangeStatus::Done);
    }

    public function test_a_platform_that_wants_a_long_wait_is_left_alone(): void
    {
        $this->tried($this->imported());
        $this->order('busy', 1, '900');
        $this->apply();
        self::assertSame(ChangeStatus::Stopped, $this->change->status);
        self::assertStringContainsString(
            'takes no more requests for 900 seconds',
            (string) $this->change->problem,
        );

        $this->apply();
        $this->assertAllIsWell(ChangeStatus::Done);
    }

    public function test_an_answer_that_got_lost_is_asked_for_again_and_nothing_is_written_twice(): void
    {
        $this->tried($this->imported());
        config(['platforms.timeout' => 0.3]);
        $this->order('slow', 4, '900'); // the platform carries out what it was sent, but answers too late
        $this->apply();
        self::assertSame(ChangeStatus::Stopped, $this->change->status);
        self::assertStringContainsString('did not answer within 0.3 seconds', (string) $this->change->problem);

        sleep(4); // the late ones are through by then
        config(['platforms.timeout' => 5.0]);
        $this->apply();
        $this->assertAllIsWell(ChangeStatus::Done);
    }

    public function test_nonsense_is_called_nonsense(): void
    {
        $this->tried($this->imported());
        $entries = DB::table('ledger')->count();
        $this->order('nonsense', 3);
        $this->apply();
        self::assertStringContainsString(
            'answered something that makes no sense (not JSON)',
            (string) $this->change->problem,
        );
        self::assertSame($entries, DB::table('ledger')->count());
    }

    public function test_a_write_that_the_platform_forgets_is_found_out_noted_and_made_again(): void
    {
        $this->tried($this->imported());
        $this->order('forget', 1);
        $this->apply();

        $this->assertAllIsWell(ChangeStatus::Partly);
        $forgotten = $this->change->writes()->where('state', WriteState::Differs)->get();
        self::assertCount(1, $forgotten);
        self::assertSame(
            [[$forgotten[0]->before, $forgotten[0]->after, 0], [$forgotten[0]->after, $forgotten[0]->before, 1]],
            DB::table('ledger')
                ->where('write_id', $forgotten[0]->id)
                ->orderBy('id')
                ->get()
                ->map(static fn (object $e): array => [$e->before, $e->after, (int) $e->found])
                ->all(),
        );

        $this->apply();
        $this->assertAllIsWell(ChangeStatus::Done);
    }

    public function test_a_text_that_is_changed_meanwhile_stays_as_it_is(): void
    {
        $this->tried($this->imported());
        $this->order('moved', 1);
        $this->apply();

        $failed = $this->change->writes()->where('state', WriteState::Failed)->firstOrFail();
        $this->touchedByOthers[$failed->node->external_id] = true;
        $this->assertAllIsWell(ChangeStatus::Partly);
        self::assertSame('moved=1', $this->remotes()[$failed->node->external_id]->text('suffix', ''));
        self::assertStringContainsString('It has changed on the platform meanwhile', (string) $failed->problem);
    }
}
