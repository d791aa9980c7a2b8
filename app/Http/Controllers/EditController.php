<?php

namespace App\Http\Controllers;

use App\Accounts\Selection;
use App\Bulk\Editing;
use App\Http\Checked;
use App\Http\Problem;
use App\Http\Rules\Choices;
use App\Http\Rules\OfClient;
use App\Jobs\DraftChange;
use App\Models\Account;
use App\Models\ChangeStatus;
use App\Models\Client;
use App\Models\Filter;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Document\UnusableInput;

/** Edits of many texts at once, and the filters that choose what they are about. */
final class EditController
{
    private const SLOTS = ['template', 'suffix', 'landing', 'custom'];

    /** What the edit would do; with a title, the change that does it. */
    public function edit(Request $request, Client $client, Account $account): JsonResponse
    {
        $wanted = Checked::input($request, [
            'over' => 'present|array',
            'over.nodes' => ['array', new OfClient($client, 'nodes', 5000)],
            'over.q' => 'nullable|string|max:200',
            'over.state' => 'nullable|in:proven,broken,untracked',
            'what' => 'required|array',
            'what.kind' => 'required|in:replace,set,remove,copy,paste',
            'what.slots' => ['array', new Choices(self::SLOTS)],
            'what.find' => 'nullable|string|max:2000',
            'what.with' => 'nullable|string|max:2000',
            'what.pattern' => 'boolean',
            'what.key' => 'nullable|string|max:200',
            'what.value' => 'nullable|string|max:2000',
            'what.from' => ['nullable', 'integer', new OfClient($client, 'nodes')],
            'what.cells' => 'nullable|string|max:20000000',
            'title' => 'nullable|string|max:200',
            'reason' => 'nullable|string|max:2000',
        ]);
        $over = Selection::of($account, $wanted['over'] ?? []);
        if ($over->strangers() !== []) {
            return Problem::response(422, "What is to be edited must be elements of {$account->name}.");
        }
        $title = trim($wanted['title'] ?? '');
        $plan = $client->plan();
        if ($title !== '' && ($plan === null || $request->user()->cannot('edit', $client))) {
            return $plan === null
                ? Problem::response(
                    422,
                    'There is no plan yet. Write it first: a change shows what it does to the agreement.',
                )
                : Problem::response(403, 'Your role here does not allow to draft changes.');
        }
        try {
            if ($title === '') {
                return new JsonResponse([
                    ...(new Editing($account))->run($over, $wanted['what']),
                    'change' => null,
                ]);
            }
            [$done, $change] = DB::transaction(static function () use (
                $client,
                $account,
                $over,
                $wanted,
                $title,
                $request,
                $plan,
            ): array {
                $change = $client->changes()->create([
                    'account_id' => $account->id,
                    'title' => $title,
                    'reason' => $wanted['reason'] ?? '',
                    'status' => ChangeStatus::Drafting,
                    'plan_revision' => $plan->revision,
                    'policy' => ['by' => 'hand'],
                    'user_id' => $request->user()->id,
                ]);
                $done = (new Editing($account))->run($over, $wanted['what'], $change->id);

                return $done['total'] === 0
                    ? throw new UnusableInput('nothing would change, so there is nothing to draft')
                    : [$done, $change];
            });
        } catch (UnusableInput $e) {
            return Problem::response(422, ucfirst($e->getMessage()).'.');
        }
        DraftChange::dispatch($change->id);

        return new JsonResponse([...$done, 'change' => $change->id]);
    }

    public function filters(Client $client): JsonResponse
    {
        return new JsonResponse([
            'items' => Filter::query()
                ->where('client_id', $client->id)
                ->orderBy('name')
                ->get()
                ->map->told()
                ->all(),
        ]);
    }

    public function keep(Request $request, Client $client): JsonResponse
    {
        $wanted = $request->validate([
            'name' => 'required|string|max:100',
            'account' => ['required', 'integer', new OfClient($client, 'accounts')],
            'filter' => 'present|array',
            'filter.nodes' => ['array', new OfClient($client, 'nodes', 5000)],
            'filter.q' => 'nullable|string|max:200',
            'filter.state' => 'nullable|in:proven,broken,untracked',
        ]);
        $account = $client->accounts()->find($wanted['account']);
        if ($account === null || Selection::of($account, $wanted['filter'] ?? [])->strangers() !== []) {
            return Problem::response(422, "A filter is about elements of one account of {$client->name}.");
        }
        $filter = Filter::query()->create([
            'client_id' => $client->id,
            'account_id' => $account->id,
            'name' => $wanted['name'],
            'filter' => array_filter(
                $wanted['filter'] ?? [],
                static fn ($v): bool => $v !== null && $v !== [] && $v !== '',
            ),
        ]);

        return new JsonResponse($filter->told(), 201);
    }

    public function forget(Client $client, Filter $filter): JsonResponse
    {
        $filter->delete();

        return new JsonResponse(null, 204);
    }
}
