<?php

namespace App\Jobs;

use App\Changes\Drafting;
use App\Changes\Move;
use App\Models\Change;
use App\Models\ChangeStatus;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Works out a change's writes and its story. */
final class DraftChange implements ShouldQueue
{
    use Queueable;

    public int $timeout = 1800;

    public int $tries = 2;

    public function __construct(public int $change) {}

    public function handle(): void
    {
        $change = Change::query()->with('account.link')->findOrFail($this->change);
        if ($change->status === ChangeStatus::Drafting) {
            (new Drafting($change))->run();
        } else {
            Drafting::endAdvising($change->id);
        }
    }

    public function failed(?\Throwable $e): void
    {
        Change::query()
            ->find($this->change)
            ?->take(Move::Fail, [
                'finished_at' => now(),
                'problem' => 'The change could not be worked out, by a fault of ours. Nothing was written; work it '
                    .'out again.',
            ]);
        Drafting::endAdvising($this->change);
    }
}
