<?php

namespace App\Jobs;

use App\Models\Client;
use App\Troubles\Troubles;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Looks for what arrives otherwise than was agreed on. */
final class LookAtArrivals implements ShouldQueue
{
    use Queueable;

    public int $timeout = 600;

    public int $tries = 3;

    public function __construct(public int $client) {}

    public function handle(Troubles $troubles): void
    {
        $troubles->lookAtArrivals(Client::query()->findOrFail($this->client));
    }
}
