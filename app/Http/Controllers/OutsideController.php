<?php

namespace App\Http\Controllers;

use App\Http\Problem;
use App\Http\Requests\DecideOutsideRequest;
use App\Http\Requests\ListOutsideRequest;
use App\Http\Resources\OutsideEntry;
use App\Models\Account;
use App\Models\Client;
use App\Models\OutsideChange;
use App\Outside\Agreement;
use App\Outside\Deciding;
use Illuminate\Http\JsonResponse;

/** What changed on the platforms without us: looked at, accepted, put back. */
final class OutsideController
{
    private const PAGE = 100;

    public function index(ListOutsideRequest $request, Client $client): JsonResponse
    {
        $wanted = $request->validated();
        $isDecided = ($wanted['decided'] ?? '0') === '1';
        $offset = (int) ($wanted['offset'] ?? 0);
        $accounts = isset($wanted['account'])
            ? $client->accounts()->whereKey((int) $wanted['account'])->get()
            : $client->accounts()->orderBy('name')->get();
        $items = OutsideChange::query()
            ->whereIn('account_id', $accounts->modelKeys())
            ->when($isDecided, static fn ($q) => $q->whereNotNull('decided_at'), static fn ($q) => $q->undecided())
            ->with('node', 'decider')
            ->when($isDecided, static fn ($q) => $q->orderByDesc('decided_at'))
            ->orderByDesc('breaks')
            ->orderByDesc('id')
            ->offset($offset)
            ->limit(self::PAGE + 1)
            ->get();
        $counts = OutsideChange::counts($accounts->modelKeys());

        return new JsonResponse([
            'items' => OutsideEntry::collection($items->take(self::PAGE)),
            'more' => $items->count() > self::PAGE,
            'accounts' => $accounts
                ->map(static fn (Account $a): array => [
                    'id' => $a->id,
                    'name' => $a->name,
                    ...$counts[$a->id] ?? OutsideChange::NONE,
                ])
                ->all(),
        ]);
    }

    /** What it would be as a new agreement. */
    public function agreement(Client $client, OutsideChange $outsideChange): JsonResponse
    {
        $plan = $client->plan();

        return $plan === null
            ? Problem::response(422, 'There is no plan yet that it could be taken into.')
            : new JsonResponse((new Agreement($outsideChange, $plan))->show());
    }

    public function accept(DecideOutsideRequest $request, Client $client, Account $account): JsonResponse
    {
        return (new Deciding($client, $account, $request->items(), $request->user()))->accept();
    }

    public function putBack(DecideOutsideRequest $request, Client $client, Account $account): JsonResponse
    {
        return (new Deciding($client, $account, $request->items(), $request->user()))->putBack();
    }

    public function reopen(DecideOutsideRequest $request, Client $client, Account $account): JsonResponse
    {
        return (new Deciding($client, $account, $request->items(), $request->user()))->reopen();
    }
}
