<?php

namespace App\Demo;

use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;

final class DemoPast extends Command
{
    protected $signature = 'demo:past {days} {--seed=1} {--still : nothing more happens afterwards}';

    protected $description = 'Lets people have clicked and bought for so many days, once';

    public function handle(DemoLinks $links, DemoFeeds $feeds): void
    {
        if (DB::table('marks')->insertOrIgnore(['name' => 'demo past', 'at' => now()]) === 0) {
            return;
        }
        Http::withHeaders(['Host' => 'control.localhost'])
            ->timeout(120)
            ->post(config('demo.control').'/people', [
                'days' => (int) $this->argument('days'),
                'seed' => (int) $this->option('seed'),
                'goesOn' => ! $this->option('still'),
            ])
            ->throw();
        $links->make((int) $this->argument('days'));
        $feeds->make();
        $this->call('arrivals:read', ['--all' => true]);
        $links->open();
        $this->call('figures:read');
    }
}
