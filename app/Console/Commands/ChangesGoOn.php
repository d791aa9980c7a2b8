<?php

namespace App\Console\Commands;

use App\Jobs\ApplyChange;
use App\Models\Change;
use App\Models\ChangeStatus;
use Illuminate\Console\Command;

final class ChangesGoOn extends Command
{
    protected $signature = 'changes:go-on';

    protected $description =
        'Goes on with changes at which nobody is: their worker has died, or another change of '
        .'the account was at work';

    public function handle(): void
    {
        Change::query()
            ->whereIn('status', ChangeStatus::running())
            ->where(static fn ($q) => $q->whereNull('worker_until')->orWhereRaw('worker_until < now(3)'))
            ->pluck('id')
            ->each(static fn (int $id) => ApplyChange::dispatch($id));
    }
}
