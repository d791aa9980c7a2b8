<?php

namespace App\Console\Commands;

use App\Jobs\FetchFeed;
use App\Models\Feed;
use Illuminate\Console\Command;

final class FeedsFetch extends Command
{
    protected $signature = 'feeds:fetch';

    protected $description = 'Has product lists fetched that are due';

    public function handle(): void
    {
        foreach (Feed::query()->where('next_at', '<=', now())->pluck('id') as $feed) {
            FetchFeed::dispatch($feed);
        }
    }
}
