<?php

namespace App\Http\Controllers;

use App\Accounts\WhatIf;
use App\Agreements\Agreements;
use App\Http\Requests\WeighPlanRequest;
use App\Models\Client;
use App\Models\Plan;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Plan\PlanDifference;
use Vestigon\Core\Plan\PlanDifferences;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Proof\Survey;

/** What was agreed before, what is said otherwise now, and what that would do. */
final class PlanHistoryController
{
    private const SHOWN = 100;

    public function __construct(private readonly Agreements $agreements) {}

    /** The revisions, the newest first. */
    public function index(Client $client): JsonResponse
    {
        return new JsonResponse([
            'items' => $client
                ->plans()
                ->with('by:id,name')
                ->orderByDesc('revision')
                ->limit(self::SHOWN)
                ->get(['id', 'revision', 'from_day', 'user_id', 'created_at'])
                ->map(
                    static fn (Plan $p): array => [
                        'revision' => $p->revision,
                        'fromDay' => $p->from_day,
                        'savedAt' => $p->created_at?->toIso8601String(),
                        'by' => $p->by?->name,
                    ],
                )
                ->all(),
        ]);
    }

    public function show(Client $client, int $revision): JsonResponse
    {
        $plan = $client->plans()->where('revision', $revision)->firstOrFail();

        return new JsonResponse(['revision' => $plan->revision, 'document' => $plan->document]);
    }

    /** What a plan says otherwise than a revision; without one, than the last. */
    public function differences(Request $request, Client $client): JsonResponse
    {
        $wanted = $request->validate(['document' => 'required|array', 'revision' => 'nullable|integer|min:1']);
        $before = isset($wanted['revision'])
            ? $client->plans()->where('revision', $wanted['revision'])->firstOrFail()
            : $client->lastPlan() ?? abort(404);

        return new JsonResponse([
            'revision' => $before->revision,
            'items' => array_map(
                static fn (PlanDifference $d): array => get_object_vars($d),
                PlanDifferences::between($before->read(), PlanReader::read(new Cursor($request->input('document')))),
            ),
        ]);
    }

    /** What a plan that is not saved yet would do to an account's proof. */
    public function consequences(WeighPlanRequest $request, Client $client): JsonResponse
    {
        $wanted = $request->validated();
        $account = $client->accounts()->findOrFail($wanted['account']);
        $plan = $this->agreements
            ->words($client)
            ->in(PlanReader::read(new Cursor($request->input('document'))), Agreements::today($client));

        return new JsonResponse([
            'account' => ['id' => $account->id, 'name' => $account->name],
            ...WhatIf::of(
                $account,
                static fn (CoreAccount $some): Survey => new Survey($some, $plan),
                (int) ($wanted['above'] ?? 0),
            ),
        ]);
    }
}
