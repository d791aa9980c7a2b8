<?php

namespace App\Jobs;

use App\Models\Client;
use App\Troubles\Troubles;
use Illuminate\Contracts\Queue\ShouldBeUnique;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Looks for what is wrong over all accounts of a client. */
final class LookForTroubles implements ShouldBeUnique, ShouldQueue
{
    use Queueable;

    public int $timeout = 600;

    public int $uniqueFor = 600;

    public int $tries = 1; // it is looked again when somebody asks

    public function __construct(public int $client) {}

    public function uniqueId(): string
    {
        return (string) $this->client;
    }

    public function handle(Troubles $troubles): void
    {
        $troubles->look(Client::query()->findOrFail($this->client));
    }
}
