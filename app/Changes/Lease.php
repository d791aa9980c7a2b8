<?php

namespace App\Changes;

use App\Events\WorkWentOn;
use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/**
 * Makes sure that one worker is at a change at a time, and one at an account. A worker that dies loses it after some
 * seconds, and another goes on.
 *
 * The clock is the database's: workers on many machines agree on it.
 */
final readonly class Lease
{
    /** A step that was begun this often and got nowhere is given up. */
    public const MOST_BEGINNINGS = 5;

    private function __construct(private int $change, private string $worker) {}

    /** @return self|null null: another worker is at it or at its account, or nothing is to be done */
    public static function take(Change $change): ?self
    {
        $lease = new self($change->id, Str::random(24));

        return DB::transaction(static function () use ($change, $lease): ?self {
            Account::query()->whereKey($change->account_id)->lockForUpdate()->first();
            $busy = Change::query()
                ->where('account_id', $change->account_id)
                ->whereKeyNot($change->id)
                ->whereRaw('worker_until > now(3)')
                ->exists();
            $taken =
                ! $busy
                && $lease
                    ->query()
                    ->where(
                        static fn (Builder $q) => $q
                            ->whereNull('worker_until')
                            ->orWhereRaw('worker_until < now(3)'),
                    )
                    ->update([
                        'worker' => $lease->worker,
                        'worker_until' => self::until(),
                        'begun' => DB::raw('begun + 1'),
                    ]) === 1;

            return $taken ? $lease : null;
        }, 5);
    }

    /** @return bool false: a person has paused or stopped the change, or another worker has taken over */
    public function extend(): bool
    {
        WorkWentOn::dispatch();

        return $this->query()
            ->where('worker', $this->worker)
            ->update(['worker_until' => self::until()]) === 1;
    }

    /** Something has been got done: the next beginning is a first one again. */
    public function progressed(): bool
    {
        return $this->query()
            ->where('worker', $this->worker)
            ->update(['begun' => 0]) === 1;
    }

    public function release(): void
    {
        DB::table('changes')
            ->where(['id' => $this->change, 'worker' => $this->worker])
            ->update(['worker_until' => null, 'worker' => null]);
    }

    private function query(): Builder
    {
        return DB::table('changes')
            ->where('id', $this->change)
            ->whereIn(
                'status',
                array_map(static fn (ChangeStatus $s): string => $s->value, ChangeStatus::running()),
            );
    }

    private static function until(): \Illuminate\Contracts\Database\Query\Expression
    {
        return DB::raw('now(3) + interval '.((int) config('platforms.lease')).' second');
    }
}
