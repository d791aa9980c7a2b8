<?php

namespace App\Console\Commands;

use App\Models\Client;
use App\Watching\Settings;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

final class ArrivalDays extends Command
{
    /** Days ahead for which there is room. */
    private const AHEAD = 8;

    protected $signature = 'arrivals:days';

    protected $description = 'Makes room for the days to come, and lets go of raw records that nobody keeps';

    public function handle(): void
    {
        $most = Client::query()
            ->get(['id', 'watching'])
            ->map(static fn (Client $c): int => Settings::of($c)->retention)
            ->push(Settings::RETENTION)
            ->max();
        DB::table('log_salts')->where('drawn_at', '<', now()->subDay())->delete();
        DB::statement('call arrival_days(?, ?)', [self::AHEAD, now()->subDays($most)->toDateString()]);
    }
}
