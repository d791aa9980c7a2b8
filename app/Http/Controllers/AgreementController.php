<?php

namespace App\Http\Controllers;

use App\Agreements\Agreements;
use App\Http\Problem;
use App\Http\Requests\SaveAgreementRequest;
use App\Jobs\LookAtLinks;
use App\Jobs\ProveAccount;
use App\Models\Agreement;
use App\Models\AgreementKind;
use App\Models\Client;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** What is agreed on beside the plan, in revisions: read, saved, gone back to. */
final class AgreementController
{
    private const SHOWN = 100;

    public function __construct(private readonly Agreements $agreements) {}

    public function show(Request $request, Client $client, AgreementKind $kind): JsonResponse
    {
        $wanted = $request->validate(['revision' => 'nullable|integer|min:1'])['revision'] ?? null;
        $of = $client->agreements()->where('kind', $kind)->with('by:id,name')->orderByDesc('revision');
        $shown =
            $wanted === null
                ? $this->agreements->last($client, $kind)
                : (clone $of)->where('revision', $wanted)->firstOrFail();

        return new JsonResponse([
            'kind' => $kind,
            'revision' => $shown->revision ?? 0,
            'fromDay' => $shown?->from_day,
            'today' => Agreements::today($client),
            'document' => $shown->document ?? $kind->first(),
            'revisions' => $of
                ->limit(self::SHOWN)
                ->get(['id', 'revision', 'from_day', 'user_id', 'created_at'])
                ->map(
                    static fn (Agreement $a): array => [
                        'revision' => $a->revision,
                        'fromDay' => $a->from_day,
                        'savedAt' => $a->created_at->toIso8601String(),
                        'by' => $a->by?->name,
                    ],
                )
                ->all(),
        ]);
    }

    public function update(SaveAgreementRequest $request, Client $client, AgreementKind $kind): JsonResponse
    {
        $wanted = $request->validated();
        $from = $wanted['fromDay'] ?? Agreements::today($client);
        $saved = $this->agreements->save(
            $client,
            $kind,
            $request->input('document'),
            (int) $wanted['revision'],
            $from,
            $request->user()->id,
        );
        if (! $saved) {
            return Problem::response(
                409,
                'Somebody else has saved this since you opened it. Yours is still here: load theirs in another '
                    .'window, compare, then save again.',
            );
        }
        $isBegun = $from <= Agreements::today($client);
        if ($isBegun && $kind->matters()) {
            ProveAccount::each($client->accounts());
        }
        if ($isBegun && $kind->mattersForLinks()) {
            LookAtLinks::dispatch($client->id);
        }

        return $this->show(new Request(), $client, $kind);
    }
}
