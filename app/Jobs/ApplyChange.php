<?php

namespace App\Jobs;

use App\Accounts\Proof;
use App\Changes\Application;
use App\Changes\Lease;
use App\Connectors\Connectors;
use App\Connectors\PlatformTrouble;
use App\Models\Change;
use App\Models\ChangeStatus;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/**
 * Carries out the stage of a change that is due, then proves its account anew.
 *
 * Started twice, one of the two finds the other at it and ends. If its worker dies, `changes:watch` starts it again.
 */
final class ApplyChange implements ShouldQueue
{
    use Queueable;

    public int $timeout = 7200;

    public int $tries = 3;

    public function __construct(public int $change) {}

    public function handle(Connectors $connectors): void
    {
        $change = Change::query()->with('account.link', 'account.client')->findOrFail($this->change);
        $lease = Lease::take($change);
        if ($lease === null) {
            return;
        }
        try {
            (new Application($change, $connectors->to($change->account->link), $lease))->run();
        } catch (PlatformTrouble $e) {
            $change->update(['status' => ChangeStatus::Stopped, 'problem' => $e->getMessage().' What was written is noted; go on from here when it is back.', 'finished_at' => now()]);
        }
        $lease->release();
        Proof::refresh($change->account);
    }

    public function failed(?\Throwable $e): void
    {
        Change::query()->whereKey($this->change)->whereIn('status', [ChangeStatus::Trying, ChangeStatus::Applying])
            ->update(['status' => ChangeStatus::Stopped, 'problem' => 'Applying stopped by a fault of ours. What was written is noted; go on from here.']);
    }
}
