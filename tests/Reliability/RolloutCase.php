<?php

namespace Tests\Reliability;

use App\Connectors\Connectors;
use App\Connectors\RemoteNode;
use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\ChangeWrite;
use App\Models\WriteState;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Process\Process;
use Tests\TestCase;

/**
 * Rollouts under trouble. Whatever happened: each write made once, the ledger equal to what the platform holds, nothing
 * lost.
 */
abstract class RolloutCase extends TestCase
{
    protected Account $account;

    protected Change $change;

    /** Brings a change to the point where its trial is done and the rest is due. */
    protected function tried(Account $account): void
    {
        $this->account = $account;
        $this->planned();
        $this->change = $this->inLine($account);
        self::assertSame(ChangeStatus::Ready, $this->change->status, (string) $this->change->problem);
        $this->apply();
        self::assertSame(ChangeStatus::Tried, $this->change->status, (string) $this->change->problem);
    }

    protected function apply(): void
    {
        $this->api('POST', "/changes/{$this->change->id}/application")->assertStatus(202);
        $this->change->refresh();
    }

    /** A large account on the stand-in, imported, and its change tried. */
    protected function triedFleet(int $ads): void
    {
        $this->standins('/grow', ['ads' => $ads]);
        $this->tried($this->imported('NQ-9000'));
        self::assertGreaterThanOrEqual($ads, $this->change->writes()->count());
    }

    /** A worker of its own process, as it runs outside of tests: it takes one job from the queue. */
    protected function worker(): Process
    {
        $worker = new Process(
            ['php', 'artisan', 'queue:work', 'database', '--once', '--tries=3'],
            base_path(),
            $this->outside(),
        );
        $worker->setTimeout(120)->start();

        return $worker;
    }

    protected function artisan_(string ...$command): void
    {
        (new Process(['php', 'artisan', ...$command], base_path(), $this->outside()))->setTimeout(60)->mustRun();
    }

    /** @return array<string, string> */
    private function outside(): array
    {
        return [
            'QUEUE_CONNECTION' => 'database',
            'CACHE_STORE' => 'database',
            'CHANGE_LEASE' => '1',
            'PLATFORM_BATCH' => '10',
            'PLATFORM_WRITES_PER_SECOND' => '25',
            'APP_ENV' => 'testing',
            'PLATFORM_RETRY_PAUSE_MS' => '1',
        ];
    }

    protected function assertAllIsWell(ChangeStatus $status): void
    {
        $this->change->refresh();
        self::assertSame($status, $this->change->status, (string) $this->change->problem);
        self::assertFalse(
            $this->change
                ->writes()
                ->reorder()
                ->whereIn('state', [WriteState::Waiting, WriteState::Sent, WriteState::Written])
                ->exists(),
            'nothing is in between',
        );
        $this->assertTheLedgerIsWhatThePlatformHolds();
        if ($status === ChangeStatus::Done) {
            self::assertSame(
                [WriteState::Verified],
                $this->change->writes()->reorder()->distinct()->pluck('state')->all(),
            );
        }
    }

    private function assertTheLedgerIsWhatThePlatformHolds(): void
    {
        $remotes = $this->remotes();
        $last = [];
        foreach (DB::table('ledger')->where('change_id', $this->change->id)->orderBy('id')->get() as $entry) {
            $last["{$entry->node_id} {$entry->kind} {$entry->name}"] = $entry->after;
        }
        $live = [];
        foreach (
            DB::table('texts')
                ->whereIn('node_id', $this->change->writes()->reorder()->select('node_id'))
                ->whereNull('until')
                ->get() as $text
        ) {
            $live["{$text->node_id} {$text->kind} {$text->name}"] = $text->text;
        }
        $made = [];
        foreach ($this->change->writes()->with('node')->get() as $write) {
            $remote = $remotes[$write->node->external_id];
            $place = "{$write->node_id} {$write->kind} {$write->name}";
            self::assertSame(
                $remote->text($write->kind, $write->name),
                $live[$place] ?? null,
                "what we take for live at {$place}",
            );
            if (array_key_exists($place, $last)) {
                self::assertSame(
                    $remote->text($write->kind, $write->name),
                    $last[$place],
                    "the ledger at {$place}",
                );
            } else {
                self::assertContains(
                    $write->state,
                    [WriteState::Failed, WriteState::Left],
                    "{$place} was written and is not in the ledger",
                );
            }
            $made[$write->node->external_id] =
                ($made[$write->node->external_id] ?? 1) + ($write->state === WriteState::Verified ? 1 : 0);
        }
        foreach ($made as $node => $version) {
            if (! isset($this->touchedByOthers[$node])) {
                self::assertSame(
                    $version,
                    $remotes[$node]->version,
                    "{$node} was written to more often than it should",
                );
            }
        }
        self::assertSame(
            DB::table('ledger')
                ->where(['change_id' => $this->change->id, 'found' => false])
                ->distinct()
                ->count('write_id'),
            $this->change
                ->writes()
                ->reorder()
                ->whereIn('state', [WriteState::Verified, WriteState::Differs])
                ->count(),
            'one entry for each write made',
        );
    }

    /** @var array<string, true> nodes whose versions moved otherwise */
    protected array $touchedByOthers = [];

    /** @return array<string, RemoteNode> by id, as the platform has them now */
    protected function remotes(): array
    {
        $ids = ChangeWrite::query()
            ->where('change_id', $this->change->id)
            ->join('nodes', 'nodes.id', 'node_id')
            ->distinct()
            ->pluck('external_id')
            ->map(strval(...))
            ->all();
        $nodes = app(Connectors::class)
            ->to($this->account->link)
            ->read($this->account->link, $this->account->external_id, $ids);

        return array_combine(array_map(static fn (RemoteNode $n): string => $n->id, $nodes), $nodes);
    }
}
