<?php

namespace App\Http\Controllers;

use App\Arrivals\Taken;
use App\Models\Arrival;
use App\Models\Client;
use App\Models\Connection;
use App\Watching\Conversions;
use App\Watching\Told;
use App\Watching\Way;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Vestigon\Core\Watch\EventKind;

final readonly class ArrivalController
{
    public function __construct(private Told $told, private Way $way) {}

    public function index(Request $request, Client $client): JsonResponse
    {
        $after = (int) ($request->validate(['after' => 'nullable|integer|min:0'])['after'] ?? 0);
        $collector = $client->collectors()->orderByRaw('hosts is not null')->first();
        $keys = $client->plan()?->read()->keys() ?? [];
        $clickIds = $this->told->clickParameters($client);
        $origin = $this->told->byDays($client);
        $arrivals = $client
            ->arrivals()
            ->with('node:id,name,external_id,account_id,parent_id,state')
            ->where('id', '>', $after)
            ->latest('id')
            ->limit(200)
            ->get();
        $conversions = Conversions::of($arrivals->where('kind', EventKind::Convert)->pluck('id')->all());

        return new JsonResponse([
            'items' => $arrivals
                ->map(
                    static fn (Arrival $a): array => [
                        'id' => $a->id,
                        'at' => $a->at->format('Y-m-d\TH:i:s.v\Z'),
                        'url' => $a->url,
                        'ribbon' => Taken::apart($a->url, $keys, $clickIds),
                        'source' => $a->source,
                        'medium' => $a->medium,
                        'campaign' => $a->campaign,
                        'term' => $a->term,
                        'content' => $a->content,
                        'clickId' => $a->click_id,
                        'channel' => $origin($a->event())->channel,
                        'conversion' => $conversions[$a->id] ?? null,
                        'isFollowed' => $a->visitor !== null,
                        'matchedBy' => $a->matched_by === '' ? null : $a->matched_by,
                        'ad' => $a->node === null
                                ? null
                                : [
                                    'id' => $a->node->id,
                                    'name' => $a->node->name,
                                    'externalId' => $a->node->external_id,
                                    'state' => $a->node->state,
                                ],
                    ],
                )
                ->all(),
            'problem' => $collector?->problem,
            'readAt' => $collector?->read_at?->toIso8601String(),
            'live' => $collector === null
                    ? []
                    : $client->connections
                        ->map(
                            static fn (Connection $c): array => [
                                'title' => $c->title,
                                'url' => (string) config("platforms.ads.{$c->dialect}.live"),
                            ],
                        )
                        ->unique('url')
                        ->reject(static fn (array $live): bool => $live['url'] === '') // nothing of it can be clicked
                        ->values()
                        ->all(),
        ]);
    }

    /** What else the same visitor has seen, as sessions. */
    public function way(Client $client, Arrival $arrival): JsonResponse
    {
        return new JsonResponse($this->way->of($arrival));
    }

    /** Arrivals by source, medium and campaign, the last 30 days. */
    public function totals(Client $client): JsonResponse
    {
        $rows = $client
            ->arrivals()
            ->where('at', '>', now()->subDays(30))
            ->where('kind', 'view')
            ->selectRaw('source, medium, campaign, count(*) n, sum(node_id is not null) matched, max(at) latest')
            ->groupBy('source', 'medium', 'campaign')
            ->orderByDesc('n')
            ->limit(200)
            ->toBase()
            ->get();

        return new JsonResponse([
            'items' => $rows
                ->map(
                    static fn (object $r): array => [
                        'source' => $r->source,
                        'medium' => $r->medium,
                        'campaign' => $r->campaign,
                        'arrivals' => (int) $r->n,
                        'matched' => (int) $r->matched,
                        'latest' => str_replace(' ', 'T', (string) $r->latest).'Z',
                    ],
                )
                ->all(),
        ]);
    }
}
