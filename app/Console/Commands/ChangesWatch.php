<?php

namespace App\Console\Commands;

use App\Jobs\ApplyChange;
use App\Models\Change;
use App\Models\ChangeStatus;
use Illuminate\Console\Command;

final class ChangesWatch extends Command
{
    protected $signature = 'changes:watch {--once : look once}';

    protected $description =
        'Goes on with changes at which nobody is: their worker has died, or another change of '
        .'the account was at work';

    private const PAUSE_SECONDS = 5;

    public function handle(): void
    {
        $until = now()->addMinutes(30);
        do {
            Change::query()
                ->whereIn('status', ChangeStatus::running())
                ->where(static fn ($q) => $q->whereNull('worker_until')->orWhereRaw('worker_until < now(3)'))
                ->pluck('id')
                ->each(static fn (int $id) => ApplyChange::dispatch($id));
            if (! $this->option('once')) {
                sleep(self::PAUSE_SECONDS);
            }
        } while (! $this->option('once') && now()->lessThan($until));
    }
}
