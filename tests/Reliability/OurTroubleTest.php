<?php

namespace Tests\Reliability;

use App\Jobs\ApplyChange;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\WriteState;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Symfony\Component\Process\Process;

/** What can happen to us in a rollout of 2,000 writes. */
final class OurTroubleTest extends RolloutCase
{
    use StopsDatabase;

    private const ADS = 2000;

    /** Hands the rest to workers of their own. */
    private function due(int $jobs = 1): void
    {
        DB::table('jobs')->delete();
        DB::table('cache')->delete();
        Change::query()
            ->whereKey($this->change->id)
            ->update([
                'status' => ChangeStatus::Applying,
                'applied_by' => $this->editor->id,
                'worker' => null,
                'worker_until' => null,
            ]);
        for ($i = 0; $i < $jobs; $i++) {
            Queue::connection('database')->push(new ApplyChange($this->change->id));
        }
    }

    private function written(): int
    {
        return $this->change
            ->writes()
            ->reorder()
            ->whereIn('state', WriteState::there())
            ->count();
    }

    /** At moments from a seed, VESTIGON_SEED or another one each time: after so many more writes, or before the first. */
    public function test_a_worker_that_is_killed_at_twenty_random_moments(): void
    {
        $seed = (int) (getenv('VESTIGON_SEED') ?: random_int(1, 999_999));
        fwrite(STDERR, "killed from the seed {$seed}\n");
        $moments = new Randomizer(new Mt19937($seed));
        $this->triedFleet(self::ADS);
        $this->due();
        $seen = [];
        for ($kills = 0; $kills < 20; $kills++) {
            $before = $this->written();
            $more = $moments->getInt(0, 60);
            $worker = $this->worker();
            $this->waitUntil(fn (): bool => ! $worker->isRunning() || $this->written() >= $before + $more);
            $worker->signal(SIGKILL);
            $worker->wait();
            $seen[] = $this->written();
            $this->progressIsTrue();
            $this->endLease();
            $this->artisan_('changes:go-on');
        }
        self::assertGreaterThan(
            5,
            count(array_unique($seen)),
            "seed {$seed}: it was killed while it was at it: ".implode(' ', $seen),
        );
        $this->worker()->wait();
        for ($i = 0; $i < 10 && $this->change->refresh()->status === ChangeStatus::Applying; $i++) {
            $this->endLease();
            $this->artisan_('changes:go-on');
            $this->worker()->wait();
        }
        $this->assertAllIsWell(ChangeStatus::Done);
    }

    /** As when its time has passed: a worker that is dead will not extend it. */
    private function endLease(): void
    {
        Change::query()
            ->whereKey($this->change->id)
            ->whereNotNull('worker_until')
            ->update(['worker_until' => DB::raw('now(3) - interval 1 second')]);
    }

    /** What is shown as written is: the platform has it. */
    private function progressIsTrue(): void
    {
        $remotes = $this->remotes();
        foreach (
            $this->change
                ->writes()
                ->whereIn('state', WriteState::there())
                ->where('stage', 'rest')
                ->with('node')
                ->get() as $write
        ) {
            self::assertSame(
                $write->after,
                $remotes[$write->node->external_id]->text($write->kind, $write->name),
            );
        }
        self::assertSame(
            $this->change
                ->writes()
                ->reorder()
                ->whereIn('state', WriteState::there())
                ->count(),
            DB::table('ledger')->where('change_id', $this->change->id)->count(),
        );
    }

    public function test_two_workers_at_the_same_change(): void
    {
        $this->triedFleet(self::ADS);
        $this->due(2);
        $workers = [$this->worker(), $this->worker()];
        array_map(static fn (Process $p): int => $p->wait(), $workers);

        $this->assertAllIsWell(ChangeStatus::Done);
    }

    public function test_the_database_stops_for_ten_seconds(): void
    {
        $this->triedFleet(self::ADS);
        $this->due();
        $worker = $this->worker();
        $this->waitUntil(fn (): bool => $this->written() > 200);
        $this->stopDatabase(10);
        $worker->wait();
        self::assertLessThan(self::ADS, $this->written(), 'it was stopped while it was at it');

        $this->endLease();
        $this->artisan_('changes:go-on');
        $this->worker()->wait();
        $this->assertAllIsWell(ChangeStatus::Done);
    }

    public function test_a_person_holds_it_goes_on_and_ends_it(): void
    {
        $this->triedFleet(self::ADS);
        $this->due();
        $worker = $this->worker();
        $this->waitUntil(fn (): bool => $this->written() > 100);
        $this->api('POST', "/changes/{$this->change->id}/pause")->assertOk();
        $worker->wait();
        $held = $this->written();
        self::assertSame(ChangeStatus::Paused, $this->change->refresh()->status);
        self::assertLessThan(self::ADS, $held);

        $this->due();
        $worker = $this->worker();
        $this->waitUntil(fn (): bool => $this->written() > $held + 100);
        $this->api('POST', "/changes/{$this->change->id}/stop")->assertStatus(202);
        $worker->wait();

        $this->assertAllIsWell(ChangeStatus::Partly);
        $left = $this->change->writes()->reorder()->where('state', WriteState::Left)->count();
        self::assertGreaterThan(100, $left);
        self::assertSame(
            0,
            $this->change
                ->writes()
                ->reorder()
                ->where('stage', 'after')
                ->where('state', '<>', 'verified')
                ->count(),
            'the trial is tidied up',
        );
        self::assertStringContainsString("{$left} of the writes were left out", (string) $this->change->problem);
    }

    private function waitUntil(\Closure $true): void
    {
        for ($i = 0; $i < 400 && ! $true(); $i++) {
            usleep(25_000);
        }
        self::assertTrue($true());
    }
}
