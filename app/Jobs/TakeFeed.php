<?php

namespace App\Jobs;

use App\Feeds\Arriving;
use App\Models\Feed;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\File;
use Vestigon\Core\Document\UnusableInput;

/** Takes a large list that was put in as a file. */
final class TakeFeed implements ShouldQueue
{
    use Queueable;

    public int $timeout = 1800;

    public int $tries = 1; // what is wrong with the file is said

    public function __construct(public int $feed, public string $path) {}

    public function handle(Arriving $arriving): void
    {
        $feed = Feed::query()->find($this->feed);
        if ($feed === null) {
            File::delete($this->path);

            return;
        }
        try {
            $feed->update(['problem' => $arriving->take($feed, $this->path)->why]);
        } catch (UnusableInput $e) {
            $feed->refuse($e);
        }
    }

    /** The worker has died over it, or is at fault. */
    public function failed(): void
    {
        File::delete($this->path);
        Feed::query()->whereKey($this->feed)->update([
            'problem' => 'Reading the file stopped by a fault of ours. What was there before stays; put it in again.',
        ]);
    }
}
