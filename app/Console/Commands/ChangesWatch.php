<?php

namespace App\Console\Commands;

use App\Jobs\ApplyChange;
use App\Models\Change;
use App\Models\ChangeStatus;
use Illuminate\Console\Command;

final class ChangesWatch extends Command
{
    protected $signature = 'changes:watch {--once : look once}';

    protected $description = 'Goes on with changes whose worker has died';

    private const PAUSE_SECONDS = 5;

    public function handle(): void
    {
        $until = now()->addMinutes(30);
        do {
            Change::query()->whereIn('status', [ChangeStatus::Trying, ChangeStatus::Applying])->whereRaw('worker_until < now(3)')->pluck('id')->each(static fn (int $id) => ApplyChange::dispatch($id));
            if (! $this->option('once')) {
                sleep(self::PAUSE_SECONDS);
            }
        } while (! $this->option('once') && now()->lessThan($until));
    }
}
