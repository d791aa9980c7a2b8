<?php

namespace App\Http\Controllers;

use App\Accounts\Selection;
use App\Bulk\DraftedEdit;
use App\Bulk\Editing;
use App\Http\Problem;
use App\Http\Requests\EditTextsRequest;
use App\Http\Requests\KeepFilterRequest;
use App\Models\Account;
use App\Models\Client;
use App\Models\Filter;
use Illuminate\Http\JsonResponse;
use Vestigon\Core\Document\UnusableInput;

/** Edits of many texts at once, and the filters that choose what they are about. */
final class EditController
{
    /** What the edit would do; with a title, the change that does it. */
    public function edit(EditTextsRequest $request, Client $client, Account $account): JsonResponse
    {
        $wanted = $request->validated();
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
            [$done, $change] = (new DraftedEdit($account, $plan, $request->user()->id))->draft(
                $over,
                $wanted['what'],
                $title,
                $wanted['reason'] ?? '',
            );
        } catch (UnusableInput $e) {
            return Problem::response(422, ucfirst($e->getMessage()).'.');
        }

        return new JsonResponse([...$done, 'change' => $change]);
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

    public function keep(KeepFilterRequest $request, Client $client): JsonResponse
    {
        $wanted = $request->validated();
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
