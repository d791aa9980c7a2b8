<?php

namespace App\Jobs;

use App\Balance\StairDays;
use App\Models\Client;
use App\Results\Rollups;
use Illuminate\Contracts\Queue\ShouldBeUnique;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Adds up by day what a client's results are asked for, and what became of clicks, before somebody asks. */
final class RollResults implements ShouldBeUnique, ShouldQueue
{
    use Queueable;

    public int $timeout = 1800;

    public int $uniqueFor = 1800;

    public int $tries = 1; // the next comes in ten minutes

    public function __construct(public int $client) {}

    public function uniqueId(): string
    {
        return (string) $this->client;
    }

    public function handle(Rollups $rollups, StairDays $stairs): void
    {
        $client = Client::query()->findOrFail($this->client);
        $rollups->ahead($client);
        $stairs->refresh($client, now()->subDays(Rollups::BACK)->toDateString(), now()->addDay()->toDateString());
    }
}
