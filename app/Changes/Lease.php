<?php

namespace App\Changes;

use App\Models\Change;
use App\Models\ChangeStatus;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/**
 * Makes sure that one worker is at a change at a time. A worker that dies loses it after some seconds, and another goes on.
 *
 * The clock is the database's: workers on many machines agree on it.
 */
final readonly class Lease
{
    private function __construct(private int $change, private string $worker) {}

    /** @return self|null null: another worker is at it, or nothing is to be done */
    public static function take(Change $change): ?self
    {
        $lease = new self($change->id, Str::random(24));

        return $lease->extend(taking: true) ? $lease : null;
    }

    /** @return bool false: a person has paused or stopped the change, or another worker has taken over */
    public function extend(bool $taking = false): bool
    {
        $query = Change::query()->whereKey($this->change)->whereIn('status', array_filter(ChangeStatus::cases(), static fn (ChangeStatus $s): bool => $s->isRunning()));
        $taking ? $query->where(static fn ($q) => $q->whereNull('worker_until')->orWhereRaw('worker_until < now(3)')) : $query->where('worker', $this->worker);

        return $query->toBase()->update(['worker' => $this->worker, 'worker_until' => DB::raw('now(3) + interval '.((int) config('platforms.lease')).' second')]) === 1;
    }

    public function release(): void
    {
        Change::query()->whereKey($this->change)->where('worker', $this->worker)->toBase()->update(['worker_until' => null, 'worker' => null]);
    }
}
