<?php

namespace App\Jobs;

use App\Links\Faults;
use App\Models\Client;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Looks at a client's links again: what is agreed on has changed, or another day has begun. */
final class LookAtLinks implements ShouldQueue
{
    use Queueable;

    public int $timeout = 600;

    public int $tries = 3;

    public function __construct(public int $client) {}

    public function handle(Faults $faults): void
    {
        $faults->again(Client::query()->findOrFail($this->client));
    }
}
