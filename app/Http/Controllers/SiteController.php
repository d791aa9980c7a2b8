<?php

namespace App\Http\Controllers;

use App\Collecting\KnownSites;
use App\Events\Noteworthy;
use App\Http\Problem;
use App\Http\Requests\SiteRequest;
use App\Models\Arrival;
use App\Models\Client;
use App\Models\Collector;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** Where a client's arrivals come from: sites that report to us, and analytics that are read. */
final class SiteController
{
    /** Refusals of so many days are told. */
    private const DAYS = 7;

    public function index(Client $client): JsonResponse
    {
        $collectors = $client->collectors()->orderBy('site')->get();
        $ids = $collectors->modelKeys();
        $last = Arrival::query()
            ->whereIn('collector_id', $ids)
            ->groupBy('collector_id')
            ->selectRaw('collector_id, max(id) id')
            ->toBase()
            ->pluck('id', 'collector_id');
        $at = Arrival::query()->whereKey($last->values())->pluck('at', 'collector_id');
        $refused = DB::table('refusals')
            ->whereIn('collector_id', $ids)
            ->where('day', '>', now($client->time_zone)->subDays(self::DAYS)->toDateString())
            ->groupBy('collector_id', 'why')
            ->selectRaw('collector_id, why, sum(n) n')
            ->get()
            ->groupBy('collector_id');

        return new JsonResponse([
            'items' => $collectors
                ->map(
                    static fn (Collector $c): array => [
                        'id' => $c->id,
                        'name' => $c->site,
                        'key' => $c->key,
                        'hosts' => $c->hosts ?? [],
                        'hasToken' => $c->token_hash !== null,
                        'script' => $c->key === null ? null : self::script($c->key),
                        'lastAt' => isset($at[$c->id]) ? $at[$c->id]->toIso8601String() : null,
                        'problem' => $c->problem,
                        'refused' => ($refused[$c->id] ?? collect())
                            ->map(static fn (object $r): array => ['why' => $r->why, 'n' => (int) $r->n])
                            ->values()
                            ->all(),
                    ],
                )
                ->all(),
        ]);
    }

    public function store(SiteRequest $request, Client $client): JsonResponse
    {
        $wanted = $request->validated();
        $site = $client->collectors()->create([
            'site' => $wanted['name'],
            'hosts' => $wanted['hosts'],
            'key' => Str::random(24),
            'created_at' => now(),
        ]);
        Noteworthy::dispatch('site-added', $request->user()->id, $client->id, ['name' => $site->site]);

        return $this->index($client)->setStatusCode(201);
    }

    /** What servers hand conversions in by: told once, and never again. */
    public function token(Request $request, Client $client, Collector $collector): JsonResponse
    {
        if ($collector->key === null) {
            return Problem::response(422, 'Nothing is handed in for it: it is no site that reports to us.');
        }
        $token = Str::random(40);
        $collector->update(['token_hash' => hash('sha256', $token)]);
        Noteworthy::dispatch('site-token-made', $request->user()->id, $client->id, ['name' => $collector->site]);

        return new JsonResponse(
            [
                'token' => $token,
                'address' => rtrim((string) config('app.url'), '/')."/in/{$collector->key}/records",
            ],
            201,
        );
    }

    /** It reports no more; what has arrived stays. */
    public function destroy(Request $request, Client $client, Collector $collector): JsonResponse
    {
        $key = (string) $collector->key;
        $collector->update(['key' => null, 'problem' => 'It does not report any more.']);
        KnownSites::forget($key);
        Noteworthy::dispatch('site-ended', $request->user()->id, $client->id, ['name' => $collector->site]);

        return new JsonResponse(null, 204);
    }

    /** What stands in the pages' heads. */
    private static function script(string $key): string
    {
        return '<script async src="'.
            rtrim((string) config('app.url'), '/').
            "/in.js\" data-key=\"{$key}\"></script>";
    }
}
