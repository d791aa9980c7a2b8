<?php

namespace App\Console\Commands;

use App\Models\Client;
use App\Models\SiteFile;
use App\Models\SiteFileState;
use App\Watching\Settings;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

final class ArrivalDays extends Command
{
    /** Days ahead for which there is room. */
    private const AHEAD = 8;

    protected $signature = 'arrivals:days';

    protected $description = 'Makes room for the days to come, and lets go of what nobody keeps';

    /** Days that are kept at least; the database lets go of none that are younger. */
    private const FEWEST = 31;

    /** A sheet of which nobody says what its columns are is let go after so many days. */
    private const ASKED = 30;

    /** Records of one client that are let go at once. */
    private const SOME = 10_000;

    public function handle(): void
    {
        $kept = Client::query()
            ->get(['id', 'watching'])
            ->mapWithKeys(static fn (Client $c): array => [$c->id => Settings::of($c)->retention]);
        $most = max(Settings::RETENTION, ...$kept->values());
        DB::table('log_salts')->where('drawn_at', '<', now()->subDay())->delete();
        $unanswered = SiteFile::query()
            ->where('state', SiteFileState::Asked)
            ->where('came_at', '<', now()->subDays(self::ASKED));
        $why = 'Nobody said what its columns are. Put it in again.';
        foreach ($unanswered->lazyById() as $file) {
            if ($file->passes(SiteFileState::Asked, SiteFileState::Failed, $why)) {
                $file->letGo();
            }
        }
        DB::statement('call arrival_days(?, ?)', [self::AHEAD, now()->subDays($most)->toDateString()]);
        foreach ($kept->filter(static fn (int $days): bool => $days < $most) as $client => $days) {
            $from = now()->subDays(max($days, self::FEWEST))->toDateString();
            while (DB::table('arrivals')->where('client_id', $client)->where('at', '<', $from)->exists()) {
                DB::statement('call let_arrivals_go(?, ?, ?)', [$client, $from, self::SOME]);
            }
        }
    }
}
