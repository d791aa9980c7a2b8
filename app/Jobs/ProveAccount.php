<?php

namespace App\Jobs;

use App\Accounts\Proof;
use App\Models\Account;
use App\Troubles\ProofDay;
use App\Watching\WantedLines;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\Relation;
use Illuminate\Foundation\Queue\Queueable;

/**
 * Proves an account anew: its plan or its texts have changed. Of several at once the newest goes through, and the
 * others end.
 */
final class ProveAccount implements ShouldQueue
{
    use Queueable;

    public int $timeout = 1800;

    public int $tries = 3;

    public function __construct(public int $account) {}

    /** @param Relation|Builder<Account> $accounts those that are to be proven anew */
    public static function each(Relation|Builder $accounts): void
    {
        foreach ($accounts->pluck('id') as $account) {
            self::dispatch($account);
        }
    }

    public function handle(Proof $proof, WantedLines $wanted): void
    {
        $account = Account::query()->findOrFail($this->account);
        $proof->refresh($account);
        $wanted->anew($account);
        ProofDay::keep($account);
    }
}
