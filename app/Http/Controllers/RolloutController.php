<?php

namespace App\Http\Controllers;

use App\Changes\Forbidden;
use App\Changes\Guard;
use App\Changes\Move;
use App\Changes\Starting;
use App\Changes\TakingBack;
use App\Changes\Together;
use App\Http\Problem;
use App\Http\Requests\LookRequest;
use App\Http\Rules\OfClient;
use App\Jobs\ApplyChange;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Client;
use App\Models\WriteState;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/** A change on its way: looked at, approved, tried, applied, held, ended, taken back. */
final class RolloutController
{
    /** Notes that somebody has opened a sample. */
    public function look(LookRequest $request, Client $client, Change $change): JsonResponse
    {
        $wanted = $request->validated();
        $node = (int) $wanted['node'];
        if ((int) $wanted['draft'] !== $change->draft) {
            return Problem::response(409, Guard::WORKED_OUT_AGAIN);
        }
        if (! in_array($node, $change->samples(), true)) {
            return Problem::response(422, 'That is none of the samples of this change.');
        }
        DB::table('change_looks')->insertOrIgnore([
            'change_id' => $change->id,
            'user_id' => $request->user()->id,
            'node_id' => $node,
            'draft' => $change->draft,
        ]);

        return new JsonResponse(null, 204);
    }

    public function approve(Request $request, Client $client, Change $change): JsonResponse
    {
        $draft = (int) $request->validate(['draft' => 'required|integer'])['draft'];
        $user = $request->user();

        return DB::transaction(static function () use ($client, $change, $draft, $user): JsonResponse {
            $client = Client::query()->whereKey($client->id)->sharedLock()->firstOrFail();
            $change = $change->locked();
            $guard = new Guard($client, $change, $user);
            $why = $guard->forbids(Move::Approve, $draft) ?? $guard->lacksLooks();
            if ($why === null) {
                $change->take(Move::Approve, ['approved_by' => $user->id, 'approved_at' => now()]);
            }

            return self::answered($change, $why);
        }, 5);
    }

    /** Says no, and why: nothing is written, and the author can work it out again. */
    public function refuse(Request $request, Client $client, Change $change): JsonResponse
    {
        $user = $request->user();
        $said = trim($request->validate(['why' => 'required|string|max:2000'])['why']);
        $why = (new Guard($client, $change, $user))->forbids(Move::Refuse);
        if (
            $why === null
            && ! $change->take(Move::Refuse, [
                'finished_at' => now(),
                'problem' => "{$user->name} sent it back: {$said}",
            ])
        ) {
            $why = new Forbidden(409, Move::Refuse->refusal($change));
        }

        return self::answered($change, $why);
    }

    /** Starts the trial, or the rest; or goes on with what was held or stopped. */
    public function apply(Request $request, Client $client, Change $change): JsonResponse
    {
        $draft = $request->validate(['draft' => 'integer'])['draft'] ?? null;

        return self::answered(
            $change,
            Starting::start($client, $change, $request->user(), $draft === null ? null : (int) $draft),
            202,
        );
    }

    /** The same for all that were drafted together and wait for nothing else. */
    public function applyAll(Request $request, Client $client, Change $change): JsonResponse
    {
        return new JsonResponse(Together::goOn($client, $change, $request->user()), 202);
    }

    /** Holds it after the batch that is on its way. */
    public function pause(Client $client, Change $change): JsonResponse
    {
        return self::answered(
            $change,
            $change->take(Move::Hold) ? null : new Forbidden(409, Move::Hold->refusal($change)),
        );
    }

    /** Ends it: what has not been written is left out; what has is read back, and the trial's traces are tidied up. */
    public function stop(Request $request, Client $client, Change $change): JsonResponse
    {
        $user = $request->user();

        return DB::transaction(static function () use ($client, $change, $user): JsonResponse {
            $change = $change->locked();
            $why = (new Guard($client, $change, $user))->forbids(Move::End);
            if ($why === null) {
                $change
                    ->writes()
                    ->reorder()
                    ->where(['stage' => 'rest', 'state' => WriteState::Waiting])
                    ->update(['state' => WriteState::Left, 'problem' => null]);
                if ($change->status === ChangeStatus::Paused) {
                    // else a worker is at it, and sees that nothing waits
                    $change->take(Move::End, ['worker' => null, 'worker_until' => null]);
                    ApplyChange::dispatch($change->id)->afterCommit();
                }
            }

            return self::answered($change, $why, 202);
        }, 5);
    }

    public function takeBack(Request $request, Client $client, Change $change): JsonResponse
    {
        $only =
            $request->validate(['writes' => ['array', 'min:1', new OfClient($client, 'writes', 5000)]])[
                'writes'
            ] ?? null;

        return TakingBack::draft($client, $change, $only, $request->user());
    }

    private static function answered(Change $change, ?Forbidden $why, int $status = 200): JsonResponse
    {
        return $why === null
            ? new JsonResponse(['id' => $change->id], $status)
            : Problem::response($why->status, $why->why);
    }
}
