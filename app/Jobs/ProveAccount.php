<?php

namespace App\Jobs;

use App\Accounts\Proof;
use App\Models\Account;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Proves an account anew, after its plan has changed. */
final class ProveAccount implements ShouldQueue
{
    use Queueable;

    public int $timeout = 1800;

    public function __construct(public int $account) {}

    public function handle(): void
    {
        Proof::refresh(Account::query()->findOrFail($this->account));
    }
}
