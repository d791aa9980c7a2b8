<?php

namespace App\Console\Commands;

use App\Arrivals\Withheld;
use App\Models\Account;
use App\Models\Collector;
use App\Models\Tracker;
use App\Trackers\HopCounts;
use App\Watching\PlatformFigures;
use Illuminate\Console\Command;

final class FiguresRead extends Command
{
    protected $signature = 'figures:read {--minutes=0 : only accounts of which nobody has asked for so long}';

    protected $description = 'Reads what platforms say of each ad and day, and what trackers have sent on';

    public function handle(PlatformFigures $figures, Withheld $withheld, HopCounts $counts): void
    {
        $accounts = Account::query()
            ->with(['client', 'link'])
            ->whereNotNull('imported_at')
            ->where(
                fn ($of) => $of
                    ->whereNull('figures_at')
                    ->orWhere('figures_at', '<=', now()->subMinutes((int) $this->option('minutes'))),
            );
        $asked = 0;
        foreach ($accounts->lazyById() as $account) {
            $figures->read($account);
            $asked++;
        }
        foreach ($asked > 0 ? Collector::query()->whereNull('hosts')->get() : [] as $collector) {
            $withheld->read($collector);
        }
        foreach ($asked > 0 ? Tracker::query()->with('client')->lazyById() : [] as $tracker) {
            $counts->ask($tracker);
        }
    }
}
