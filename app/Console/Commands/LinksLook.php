<?php

namespace App\Console\Commands;

use App\Jobs\LookAtLinks;
use App\Models\Client;
use Illuminate\Console\Command;

final class LinksLook extends Command
{
    protected $signature = 'links:look';

    protected $description = 'Looks at links again: words are good from a day on, and until one';

    public function handle(): void
    {
        foreach (Client::query()->whereHas('links')->pluck('id') as $client) {
            LookAtLinks::dispatch($client);
        }
    }
}
