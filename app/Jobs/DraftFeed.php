<?php

namespace App\Jobs;

use App\Feeds\Drafting;
use App\Models\FeedDraft;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Works out a feed's draft over all its items. */
final class DraftFeed implements ShouldQueue
{
    use Queueable;

    public int $timeout = 1800;

    public int $tries = 3;

    public function __construct(public int $draft) {}

    public function handle(Drafting $drafting): void
    {
        $draft = FeedDraft::query()->with('feed.client')->find($this->draft);
        if ($draft?->state === 'working') {
            $drafting->work($draft);
        }
    }

    public function failed(): void
    {
        FeedDraft::query()
            ->where(['id' => $this->draft, 'state' => 'working'])
            ->update(['state' => 'failed', 'problem' => 'Working it out stopped by a fault of ours. Try again.']);
    }
}
