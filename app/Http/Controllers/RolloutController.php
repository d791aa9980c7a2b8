<?php

namespace App\Http\Controllers;

use App\Changes\Starting;
use App\Changes\TakingBack;
use App\Changes\Together;
use App\Http\Problem;
use App\Http\Rules\OfClient;
use App\Jobs\ApplyChange;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Client;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/** A change on its way: looked at, approved, tried, applied, held, ended, taken back. */
final class RolloutController
{
    private const WORKED_OUT_AGAIN = 'This change has been worked out again since you opened it. Look at it anew.';

    /** Notes that somebody has opened a sample. */
    public function look(Request $request, Client $client, Change $change): JsonResponse
    {
        $wanted = $request->validate(['node' => ['required', 'integer', new OfClient($client, 'nodes')], 'draft' => 'required|integer']);
        $node = (int) $wanted['node'];
        if ((int) $wanted['draft'] !== $change->draft) {
            return Problem::response(409, self::WORKED_OUT_AGAIN);
        }
        if (! in_array($node, self::samples($change), true)) {
            return Problem::response(422, 'That is none of the samples of this change.');
        }
        DB::table('change_looks')->insertOrIgnore(['change_id' => $change->id, 'user_id' => $request->user()->id, 'node_id' => $node, 'draft' => $change->draft]);

        return new JsonResponse(null, 204);
    }

    public function approve(Request $request, Client $client, Change $change): JsonResponse
    {
        $draft = (int) $request->validate(['draft' => 'required|integer'])['draft'];

        return DB::transaction(static fn (): JsonResponse => self::approveLocked(Client::query()->whereKey($client->id)->sharedLock()->firstOrFail(), $change->locked(), $draft, $request->user()->id), 5);
    }

    /** @param int $draft the working out that the person saw */
    private static function approveLocked(Client $client, Change $change, int $draft, int $user): JsonResponse
    {
        $samples = self::samples($change);
        $opened = DB::table('change_looks')->where(['change_id' => $change->id, 'user_id' => $user, 'draft' => $change->draft])->whereIn('node_id', $samples)->count();
        $problem = match (true) {
            $change->draft !== $draft => [409, self::WORKED_OUT_AGAIN],
            $change->status !== ChangeStatus::Ready => [409, 'Only a change that has been worked out and not begun can be approved.'],
            $change->user_id === $user => [403, 'This change is your own. Another person has to approve it.'],
            $opened < count($samples) => [422, "Open the samples first: {$opened} of ".count($samples).' have been.'],
            $client->plan()?->revision !== $change->plan_revision => [409, 'The plan has changed since this change was worked out. It has to be worked out again.'],
            default => null,
        };
        if ($problem !== null) {
            return Problem::response(...$problem);
        }
        $change->move([ChangeStatus::Ready], ChangeStatus::Ready, ['approved_by' => $user, 'approved_at' => now()]);

        return new JsonResponse(['id' => $change->id]);
    }

    /** Says no, and why: nothing is written, and the author can work it out again. */
    public function refuse(Request $request, Client $client, Change $change): JsonResponse
    {
        $user = $request->user();
        $why = trim($request->validate(['why' => 'required|string|max:2000'])['why']);
        if ($change->user_id === $user->id) {
            return Problem::response(403, 'This change is your own. Drop it instead.');
        }
        $refused = $change->move([ChangeStatus::Ready], ChangeStatus::Dropped, ['finished_at' => now(), 'problem' => "{$user->name} sent it back: {$why}"]);

        return ! $refused ? Problem::response(409, 'Only a change that has been worked out and not begun can be sent back.') : new JsonResponse(['id' => $change->id]);
    }

    /** Starts the trial, or the rest; or goes on with what was held or stopped. */
    public function apply(Request $request, Client $client, Change $change): JsonResponse
    {
        $why = Starting::start($client, $change, $request->user()->id);

        return $why === null ? new JsonResponse(['id' => $change->id], 202) : Problem::response(409, $why);
    }

    /** The same for all that were drafted together and wait for nothing else. */
    public function applyAll(Request $request, Client $client, Change $change): JsonResponse
    {
        return new JsonResponse(Together::goOn($client, $change, $request->user()->id), 202);
    }

    /** Holds it after the batch that is on its way. */
    public function pause(Client $client, Change $change): JsonResponse
    {
        $held = $change->move([ChangeStatus::Trying, ChangeStatus::Applying], ChangeStatus::Paused);

        return ! $held ? Problem::response(409, 'It is not being applied now, so there is nothing to hold.') : new JsonResponse(['id' => $change->id]);
    }

    /** Ends it: what has not been written is left out; what has is read back, and the trial's traces are tidied up. */
    public function stop(Client $client, Change $change): JsonResponse
    {
        return DB::transaction(static function () use ($change): JsonResponse {
            $change = $change->locked();
            if ($change->stage !== 'rest' || ! in_array($change->status, [ChangeStatus::Applying, ChangeStatus::Paused], true)) {
                return Problem::response(409, 'Only a change whose rest is being applied can be ended. After the trial, take it back instead.');
            }
            $change->writes()->reorder()->where(['stage' => 'rest', 'state' => 'waiting'])->update(['state' => 'left', 'problem' => null]);
            if ($change->move([ChangeStatus::Paused], ChangeStatus::Applying, ['worker' => null, 'worker_until' => null])) {
                ApplyChange::dispatch($change->id)->afterCommit();
            }

            return new JsonResponse(['id' => $change->id], 202);
        }, 5);
    }

    public function takeBack(Request $request, Client $client, Change $change): JsonResponse
    {
        $only = $request->validate(['writes' => ['array', 'min:1', new OfClient($client, 'writes', 5000)]])['writes'] ?? null;

        return TakingBack::draft($client, $change, $only, $request->user()->id);
    }

    /** @return list<int> */
    private static function samples(Change $change): array
    {
        return array_map(static fn (array $s): int => $s['node'], $change->story['samples'] ?? []);
    }
}
