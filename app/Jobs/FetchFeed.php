<?php

namespace App\Jobs;

use App\Feeds\Fetching;
use App\Models\Feed;
use Illuminate\Contracts\Queue\ShouldBeUnique;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Fetches a product list from its address. */
final class FetchFeed implements ShouldBeUnique, ShouldQueue
{
    use Queueable;

    public int $timeout = 1800;

    public int $uniqueFor = 1800;

    public int $tries = 1; // what goes wrong is said; the schedule tries again

    public function __construct(public int $feed) {}

    public function uniqueId(): string
    {
        return (string) $this->feed;
    }

    public function handle(Fetching $fetching): void
    {
        $feed = Feed::query()->with('client')->find($this->feed);
        if ($feed?->address !== null) {
            $fetching->fetch($feed);
        }
    }

    /** The worker has died over it, or is at fault. */
    public function failed(): void
    {
        Feed::query()->whereKey($this->feed)->update([
            'problem' => 'Fetching stopped by a fault of ours. What was there before stays; fetch it again.',
        ]);
    }
}
