<?php

namespace App\Outside;

use App\Changes\ByHand;
use App\Http\Problem;
use App\Models\Account;
use App\Models\Client;
use App\Models\OutsideChange;
use App\Models\OutsideState;
use App\Models\User;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;

/** What people decide of changes that came from outside: accepted as they are, put back, or thought of again. */
final readonly class Deciding
{
    private const MOST = 50_000;

    /** @param list<int>|null $items ids; null: all that nobody has decided of */
    public function __construct(
        private Client $client,
        private Account $account,
        private ?array $items,
        private User $user,
    ) {}

    public function accept(): JsonResponse
    {
        $of = $this->undecided()->when($this->items !== null, fn (Builder $q) => $q->whereKey($this->items));

        return new JsonResponse(['decided' => $this->mark($of, OutsideState::Accepted)]);
    }

    /** Drafts the change that puts texts back to what they were before. */
    public function putBack(): JsonResponse
    {
        return DB::transaction(function (): JsonResponse {
            $back = $this->found()->whereIn('kind', OutsideChange::TEXTS);
            if ($back->isEmpty()) {
                return Problem::response(
                    409,
                    'None of these can be put back by a change: types, places and what is new or gone '
                        .'are put right on the platform itself. Accept them, or import again when they are.',
                );
            }
            $texts = $back
                ->map(static fn (OutsideChange $o): array => [
                    'node' => $o->node_id,
                    'kind' => $o->kind,
                    'name' => $o->name,
                    'text' => $o->before,
                ])
                ->values()
                ->all();
            $answer = ByHand::draft(
                $this->client,
                $this->account,
                'Put back what was changed outside',
                'Changed on the platform without us, found until '.$back->max('found_at')->toIso8601String().'.',
                $texts,
                $this->user->id,
            );
            if ($answer->status() === 202) {
                $this->mark(OutsideChange::query()->whereKey($back->modelKeys()), OutsideState::Returned, [
                    'change_id' => $answer->getData()->id,
                ]);
            }

            return $answer;
        }, 5);
    }

    /** What was accepted waits for a decision again. */
    public function reopen(): JsonResponse
    {
        $count = OutsideChange::query()
            ->where(['account_id' => $this->account->id, 'state' => OutsideState::Accepted])
            ->whereKey($this->items ?? [])
            ->update(['state' => OutsideState::Open, 'user_id' => null, 'decided_at' => null]);

        return new JsonResponse(['decided' => $count]);
    }

    /** @return Collection<int, OutsideChange> locked: who reads and decides does so alone */
    private function found(): Collection
    {
        return $this->undecided()
            ->when($this->items !== null, fn (Builder $q) => $q->whereKey($this->items))
            ->orderBy('id')
            ->limit(self::MOST)
            ->lockForUpdate()
            ->get();
    }

    /** @return Builder<OutsideChange> */
    private function undecided(): Builder
    {
        return OutsideChange::query()->where('account_id', $this->account->id)->undecided();
    }

    /**
     * @param Builder<OutsideChange> $of
     * @param array<string, mixed> $with
     */
    private function mark(Builder $of, OutsideState $state, array $with = []): int
    {
        return $of->update([
            'state' => $state,
            'user_id' => $this->user->id,
            'decided_at' => now()->format('Y-m-d H:i:s.v'),
            'change_id' => null,
            ...$with,
        ]);
    }
}
