<?php

namespace App\Jobs;

use App\Accounts\Proof;
use App\Changes\Application;
use App\Connectors\Connectors;
use App\Connectors\PlatformTrouble;
use App\Models\Change;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Queue\Middleware\WithoutOverlapping;

/** Applies a change, then proves its account anew. */
final class ApplyChange implements ShouldQueue
{
    use Queueable;

    public int $timeout = 1800;

    public int $tries = 20;

    public function __construct(public int $change) {}

    /** @return list<object> */
    public function middleware(): array
    {
        return [(new WithoutOverlapping("change {$this->change}"))->releaseAfter(5)->expireAfter(1800)];
    }

    public function handle(Connectors $connectors): void
    {
        $change = Change::query()->with('account.link')->findOrFail($this->change);
        if ($change->status !== 'applying') {
            return;
        }
        try {
            (new Application($change, $connectors->for($change->account->dialect)))->run();
        } catch (PlatformTrouble $e) {
            $change->update(['status' => 'stopped', 'problem' => $e->getMessage().' What was written is noted; go on from here when it is back.', 'finished_at' => now()]);
        }
        Proof::refresh($change->account);
    }

    public function failed(?\Throwable $e): void
    {
        Change::query()->whereKey($this->change)->where('status', 'applying')->update(['status' => 'stopped', 'problem' => 'Applying stopped by a fault of ours. What was written is noted; go on from here.']);
    }
}
