<?php

namespace App\Changes;

use App\Models\Change;
use App\Models\ChangeStatus;
use App\Support\Overtaken;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;

/**
 * One working out of a change: as soon as it is dropped or begun anew, by a person or after its worker has died,
 * nothing is kept of this one any more.
 */
final readonly class DraftTurn
{
    /** @param string $begun when, to the millisecond */
    private function __construct(public int $change, private int $draft, private string $begun) {}

    public static function begin(Change $change): self
    {
        $change->update(['drafted_at' => now()]);

        return new self($change->id, $change->draft, $change->fromDateTime($change->drafted_at) ?? '');
    }

    /**
     * Keeps some of it, if it is still wanted; nobody drops it meanwhile.
     *
     * @throws Overtaken
     */
    public function during(\Closure $keep): void
    {
        DB::transaction(function () use ($keep): void {
            $this->check($this->wanted()->sharedLock());
            $keep();
        }, 5);
    }

    /**
     * Tells what is being done, and how many ads are through with it.
     *
     * @throws Overtaken
     */
    public function tell(string $step, int $through): void
    {
        $change = $this->wanted()->lockForUpdate();
        DB::transaction(function () use ($change, $step, $through): void {
            $this->check($change);
            $change->first()?->update(['step' => $step, 'through' => $through]);
        }, 5);
    }

    /**
     * So many more ads are through.
     *
     * @throws Overtaken
     */
    public function further(int $ads): void
    {
        if ($this->wanted()->increment('through', $ads) === 0) {
            throw new Overtaken();
        }
    }

    /** @throws Overtaken */
    public function stillWanted(): void
    {
        $this->check($this->wanted());
    }

    /**
     * @param Builder<Change> $change
     *
     * @throws Overtaken
     */
    private function check(Builder $change): void
    {
        if (! $change->exists()) {
            throw new Overtaken();
        }
    }

    /** @return Builder<Change> */
    private function wanted(): Builder
    {
        return Change::query()
            ->whereKey($this->change)
            ->where([
                'status' => ChangeStatus::Drafting,
                'draft' => $this->draft,
                'drafted_at' => $this->begun,
            ]);
    }
}
