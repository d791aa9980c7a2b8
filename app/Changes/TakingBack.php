<?php

namespace App\Changes;

use App\Http\Problem;
use App\Jobs\DraftChange;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Client;
use App\Models\User;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;

/** Drafts the change that puts everything, or some of it, back to the exact texts before another. */
final class TakingBack
{
    /** What was written, each place once, with the text that the change found there first. */
    private const WRITTEN = "select * from (
            select *, row_number() over (partition by node_id, kind, name order by position) nth
            from change_writes where change_id = ? and state in ('written', 'verified', 'differs')
        ) w where nth = 1";

    /** @param list<int>|null $only ids of writes; null: all */
    public static function draft(Client $client, Change $change, ?array $only, User $user): JsonResponse
    {
        return DB::transaction(
            static fn (): JsonResponse => self::ofLocked($client, $change->locked(), $only, $user),
            5,
        );
    }

    /** @param list<int>|null $only */
    private static function ofLocked(Client $client, Change $change, ?array $only, User $user): JsonResponse
    {
        $why = (new Guard($client, $change, $user))->forbids(Move::TakeBack);
        if ($why !== null) {
            return Problem::response($why->status, $why->why);
        }
        $plan = $client->plan();
        $some = $only === null ? '' : ' and w.id in ('.implode(',', array_map(intval(...), $only ?: [0])).')';
        $written = (int) DB::scalar('select count(*) from ('.self::WRITTEN."{$some}) x", [$change->id]);
        if ($plan === null || $written === 0) {
            return Problem::response(
                409,
                $only === null
                    ? 'Nothing of this change was written, so there is nothing to take back.'
                    : 'None of these writes was made, so there is nothing to take back.',
            );
        }
        $again = self::writtenAgain($change, $some);
        $back = $client->changes()->create([
            'account_id' => $change->account_id,
            'title' => mb_substr("Take back: {$change->title}", 0, 200),
            'status' => ChangeStatus::Drafting,
            'plan_revision' => $plan->revision,
            'policy' => ['by' => 'hand', 'part' => $only !== null],
            'user_id' => $user->id,
            'takes_back' => $change->id,
            'reason' => "Back to the texts before change {$change->id}"
                .($only === null ? '.' : ", {$written} of them.")
                .($again > 0
                    ? " Beware: {$again} of these places have been written again since; they too go back to "
                        .'what they '
                        .'were before it.'
                    : ''),
        ]);
        DB::insert(
            'insert into change_writes (change_id, position, node_id, kind, name, after) select ?, row_number() over '
                .'(order by w.position desc) - 1, w.node_id, w.kind, w.name, w.`before` from ('
                .self::WRITTEN
                ."{$some}) w",
            [$back->id, $change->id],
        );
        DraftChange::dispatch($back->id)->afterCommit();

        return new JsonResponse(['id' => $back->id], 202);
    }

    /** Places that hold another text by now than the change wrote. */
    private static function writtenAgain(Change $change, string $some): int
    {
        return (int) DB::scalar(
            "select count(*) from (
                select *, row_number() over (partition by node_id, kind, name order by position desc) nth
                from change_writes where change_id = ? and state in ('written', 'verified')
            ) w left join texts t on t.node_id = w.node_id and t.kind = w.kind and t.name = w.name and t.until is null
            join nodes n on n.id = w.node_id
            where w.nth = 1{$some} and not (if(w.kind = 'name', n.name, t.text) <=> w.`after`)",
            [$change->id],
        );
    }
}
