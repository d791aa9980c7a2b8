<?php

namespace App\Http\Controllers;

use App\Http\Problem;
use App\Http\Requests\KeepResultViewRequest;
use App\Models\Client;
use App\Models\ResultView;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Questions to results that people keep: their own, and those that others share. */
final class ResultViewController
{
    public function index(Request $request, Client $client): JsonResponse
    {
        $user = (int) $request->user()->id;

        return new JsonResponse([
            'items' => $client
                ->resultViews()
                ->where(fn ($of) => $of->where('user_id', $user)->orWhere('is_shared', true))
                ->orderBy('name')
                ->get()
                ->map(static fn (ResultView $v): array => $v->told($user))
                ->all(),
        ]);
    }

    /** Kept under a name; one of the same name is replaced. */
    public function store(KeepResultViewRequest $request, Client $client): JsonResponse
    {
        $wanted = $request->validated();
        $user = (int) $request->user()->id;
        $view = $client
            ->resultViews()
            ->updateOrCreate(
                ['user_id' => $user, 'name' => $wanted['name']],
                ['query' => $wanted['query'], 'is_shared' => $wanted['isShared'] ?? false],
            );

        return new JsonResponse($view->told($user), 201);
    }

    public function destroy(Request $request, Client $client, ResultView $resultView): JsonResponse
    {
        if ($resultView->user_id !== (int) $request->user()->id) {
            return Problem::response(422, 'Only who has kept it can let go of it.');
        }
        $resultView->delete();

        return new JsonResponse(null, 204);
    }
}
