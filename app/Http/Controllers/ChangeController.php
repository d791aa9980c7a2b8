<?php

namespace App\Http\Controllers;

use App\Accounts\Selection;
use App\Changes\ByHand;
use App\Changes\Move;
use App\Changes\Telling;
use App\Changes\Together;
use App\Http\Problem;
use App\Http\Requests\DraftChangeRequest;
use App\Http\Requests\ListChangesRequest;
use App\Http\Resources\ChangeEntry;
use App\Jobs\DraftChange;
use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\ChangeWrite;
use App\Models\Client;
use App\Models\Filter;
use App\Models\User;
use App\Models\WriteState;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class ChangeController
{
    private const PAGE = 50;

    private const LARGEST_SCOPE = 200_000;

    /** A page of changes, newest first; those that were dropped only if they are asked for. */
    public function index(ListChangesRequest $request, Client $client): JsonResponse
    {
        $changes = $request
            ->narrowed($client->changes())
            ->select('id', 'account_id', 'user_id', 'title', 'status', 'together', 'created_at')
            // counted only where no story tells them yet: of one with a hundred thousand writes that takes its time
            ->selectRaw(
                "coalesce(json_value(story, '$.writes'), (select count(*) from change_writes w where w.change_id = "
                    ."changes.id)) story_writes, json_value(story, '$.ads') story_ads",
            )
            ->with('account:id,name', 'author:id,name')
            ->latest('id')
            ->limit(self::PAGE + 1)
            ->get();

        return new JsonResponse([
            'items' => ChangeEntry::collection($changes->take(self::PAGE)),
            'next' => $changes->count() > self::PAGE ? $changes[self::PAGE - 1]->id : null,
            'dropped' => $client->changes()->where('status', ChangeStatus::Dropped)->count(),
            'people' => User::query()
                ->whereIn('id', $client->changes()->select('user_id'))
                ->orderBy('name')
                ->get(['id', 'name']),
        ]);
    }

    public function store(DraftChangeRequest $request, Client $client): JsonResponse
    {
        $wanted = $request->validated();
        $plan = $client->plan();
        if ($plan === null) {
            return Problem::response(
                422,
                'There is no plan yet. Write it first; the change brings the account in line with it.',
            );
        }
        $user = $request->user()->id;
        $as = [
            'title' => $wanted['title'],
            'reason' => $wanted['reason'] ?? '',
            'status' => ChangeStatus::Drafting,
            'plan_revision' => $plan->revision,
            'policy' => [
                'existing' => $wanted['existing'] ?? 'replace',
                'carrier' => $wanted['carrier'] ?? 'fewest',
                'switches' => $wanted['switches'] ?? 'may',
            ],
            'user_id' => $user,
        ];
        if ($wanted['every'] ?? false) {
            $accounts = Together::outOfLine($client, $plan);

            return $accounts->isEmpty()
                ? Problem::response(422, "Every ad of {$client->name} keeps the plan already.")
                : new JsonResponse(['id' => Together::draft($client, $accounts, $as)], 202);
        }
        $account = $client->accounts()->find($wanted['account'] ?? 0);
        if ($account === null) {
            return Problem::response(422, "There is no such account at {$client->name}.");
        }
        if (isset($wanted['texts'])) {
            $texts = array_map(
                static fn (array $t): array => [
                    'node' => (int) $t['node'],
                    'kind' => $t['slot'],
                    'name' => in_array($t['slot'], ['custom', 'setting'], true)
                        ? (string) ($t['custom'] ?? '')
                        : '',
                    'text' => $t['text'] ?? null,
                ],
                array_values($wanted['texts']),
            );

            return ByHand::draft($client, $account, $wanted['title'], $wanted['reason'] ?? '', $texts, $user);
        }
        $scope = self::scope($client, $account, $wanted);
        if (is_string($scope)) {
            return Problem::response(422, $scope);
        }
        $change = $client->changes()->create([...$as, 'scope' => $scope, 'account_id' => $account->id]);
        DraftChange::dispatch($change->id);

        return new JsonResponse(['id' => $change->id], 202);
    }

    /**
     * @param array<string, mixed> $wanted
     * @return list<int>|string|null the nodes that the change is about, null: the whole account; a text: what is wrong
     *     with it
     */
    private static function scope(Client $client, Account $account, array $wanted): array|string|null
    {
        $filter = isset($wanted['filter'])
            ? Filter::query()
                ->where(['client_id' => $client->id, 'account_id' => $account->id])
                ->find($wanted['filter'])
            : null;
        if (isset($wanted['filter']) && $filter === null) {
            return "There is no such filter for {$account->name}.";
        }
        $over = Selection::of($account, $filter->filter ?? ($wanted['over'] ?? []));
        if ($over->strangers() !== []) {
            return "What the change is about must be elements of {$account->name}.";
        }
        $scope = $over->isEverything() ? null : $over->ids(self::LARGEST_SCOPE + 1);

        return match (true) {
            $scope === [] => $filter === null
                ? 'The filter finds nothing now.'
                : "The filter “{$filter->name}” finds nothing now.",
            count($scope ?? []) > self::LARGEST_SCOPE => 'The filter finds more than '
                .number_format(self::LARGEST_SCOPE)
                .' elements. Choose the campaigns or the account in place of them.',
            default => $scope,
        };
    }

    public function show(Request $request, Client $client, Change $change): JsonResponse
    {
        return new JsonResponse(Telling::whole($client, $change, $request->user()));
    }

    /** Nobody wants it any more: it stays in the list, and can be worked out again. */
    public function drop(Client $client, Change $change): JsonResponse
    {
        return $change->take(Move::Drop, ['finished_at' => now()])
            ? new JsonResponse(['id' => $change->id])
            : Problem::response(409, Move::Drop->refusal($change));
    }

    /** Works it out anew: from what stands there now, with the plan as it is now. */
    public function again(Client $client, Change $change): JsonResponse
    {
        $begun = $change->take(Move::Redraft, [
            'draft' => $change->draft + 1,
            'plan_revision' => $client->plan()?->revision ?? $change->plan_revision,
            'step' => '',
            'through' => 0,
            'story' => null,
            'problem' => null,
            'approved_by' => null,
            'approved_at' => null,
            'finished_at' => null,
        ]);
        if (! $begun) {
            return Problem::response(409, Move::Redraft->refusal($change));
        }
        DraftChange::dispatch($change->id);

        return new JsonResponse(['id' => $change->id], 202);
    }

    public function writes(Request $request, Client $client, Change $change): JsonResponse
    {
        $offset =
            (int) ($request->validate(['offset' => 'integer|min:0|max:100000000', 'failed' => 'nullable'])[
                'offset'
            ] ?? 0);
        $query = $change->writes()->with('node:id,name,level,external_id')->offset($offset)->limit(200);
        if ($request->boolean('failed')) {
            $query->whereIn('state', [WriteState::Failed, WriteState::Differs, WriteState::Left]);
        }

        return new JsonResponse([
            'total' => $change->writes()->count(),
            'items' => $query
                ->get()
                ->map(
                    static fn (ChangeWrite $w): array => [
                        'id' => $w->id,
                        'node' => $w->node_id,
                        'name' => $w->node->name,
                        'level' => $w->node->level,
                        'kind' => $w->kind,
                        'custom' => $w->name,
                        'before' => $w->before,
                        'after' => $w->after,
                        'stage' => $w->stage,
                        'state' => $w->state,
                        'problem' => $w->problem,
                    ],
                )
                ->all(),
        ]);
    }
}
