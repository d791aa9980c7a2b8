<?php

namespace App\Jobs;

use App\Watching\Touched;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** What has arrived with keys that results are told by from now on is put together to sessions anew. */
final class TouchByKeys implements ShouldQueue
{
    use Queueable;

    public int $timeout = 1800;

    /** @param list<string> $keys */
    public function __construct(public int $client, public array $keys) {}

    public function handle(): void
    {
        Touched::byKeys($this->client, $this->keys);
    }
}
