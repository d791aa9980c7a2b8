<?php

namespace App\Jobs;

use App\Feeds\HandingOn;
use App\Models\Feed;
use Illuminate\Contracts\Queue\ShouldBeUniqueUntilProcessing;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Writes what is handed on of a product list: its list or its rules have changed. */
final class HandOnFeed implements ShouldBeUniqueUntilProcessing, ShouldQueue
{
    use Queueable;

    public int $timeout = 1800;

    public int $tries = 3;

    public function __construct(public int $feed) {}

    public function uniqueId(): string
    {
        return (string) $this->feed;
    }

    public function handle(HandingOn $handingOn): void
    {
        $feed = Feed::query()->find($this->feed);
        if ($feed !== null) {
            $handingOn->again($feed);
        }
    }
}
