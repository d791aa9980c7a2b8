<?php

namespace App\Console\Commands;

use App\Jobs\RollResults;
use App\Models\Client;
use App\Results\Rollups;
use Illuminate\Console\Command;

final class ResultsRoll extends Command
{
    protected $signature = 'results:roll {--anew : throw away what was added up before}';

    protected $description = 'Adds up results by day, for what is asked for';

    public function handle(): void
    {
        foreach (Client::query()->lazyById() as $client) {
            if ($this->option('anew')) {
                Rollups::forget($client);
            }
            RollResults::dispatch($client->id);
        }
    }
}
