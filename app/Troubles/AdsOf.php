<?php

namespace App\Troubles;

use App\Models\Client;
use App\Models\Trouble;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** The ads that a trouble is about, the dearest first. */
final readonly class AdsOf
{
    /** So many can be brought in line at once. */
    private const MOST = 5000;

    private const SHOWN = 40;

    /** @return array{items: list<array<string, mixed>>, ids: list<int>} */
    public function of(Client $client, Trouble $trouble): array
    {
        return match ($trouble->kind) {
            TroubleKind::Link => OfLinks::those($client, $trouble, self::SHOWN),
            TroubleKind::Feed => ['items' => [], 'ids' => []], // its page shows them
            default => $this->those($client, $trouble),
        };
    }

    /** @return array{items: list<array<string, mixed>>, ids: list<int>} where it is about names, their elements */
    private function those(Client $client, Trouble $trouble): array
    {
        $ids = $this->ads($client, $trouble)->limit(self::MOST)->pluck('n.id')->map(intval(...))->all();
        $dearest = DB::table('figures')
            ->whereIntegerInRaw('node_id', $ids)
            ->where('client_id', $client->id)
            ->where('day', '>=', Looking::since($client))
            ->groupBy('node_id')
            ->selectRaw('node_id, sum(clicks) clicks, sum(if(currency = ?, cost, 0)) cost', [$client->currency])
            ->orderByDesc('cost')
            ->limit(self::SHOWN)
            ->get()
            ->keyBy('node_id');
        $shown = [...$dearest->keys()->all(), ...array_slice($ids, 0, self::SHOWN)];
        $shown = array_slice(array_values(array_unique(array_map(intval(...), $shown))), 0, self::SHOWN);
        $nodes = DB::table('nodes as n')
            ->leftJoin('nodes as p', 'p.id', 'n.parent_id')
            ->whereIntegerInRaw('n.id', $shown)
            ->get(['n.id', 'n.name', 'n.state', 'n.fault', 'n.external_id', 'p.name as parent'])
            ->keyBy('id');
        $items = [];
        foreach ($shown as $id) {
            $node = $nodes[$id] ?? null;
            if ($node !== null) {
                $items[] = [
                    'id' => $id,
                    'name' => $node->name,
                    'externalId' => $node->external_id,
                    'parent' => $node->parent ?? '',
                    'state' => $node->state,
                    'fault' => $node->fault,
                    'clicks' => (int) ($dearest[$id]->clicks ?? 0),
                    'cost' => (int) ($dearest[$id]->cost ?? 0),
                ];
            }
        }

        return ['items' => $items, 'ids' => $ids];
    }

    private function ads(Client $client, Trouble $trouble): Builder
    {
        $ads = DB::table('nodes as n')
            ->where('n.account_id', $trouble->account_id)
            ->when($trouble->kind !== TroubleKind::Names, static fn (Builder $q): Builder => $q->where('n.is_ad', true))
            ->whereNull('n.gone_at')
            ->orderBy('n.id');

        return match ($trouble->kind) {
            TroubleKind::Broken => $ads
                ->where('n.state', 'broken')
                ->whereRaw(Looking::CAUSE.' = ?', [Looking::causeOf($trouble->what)]),
            TroubleKind::Untracked => $ads->where('n.state', 'untracked'),
            TroubleKind::Elsewhere => $ads->whereExists(
                static fn (Builder $s) => $s
                    ->from('site_sessions as s')
                    ->join('wanted_lines as w', 'w.node_id', 's.node_id')
                    ->whereColumn('s.node_id', 'n.id')
                    ->where('s.day', '>=', Looking::since($client))
                    ->whereRaw(Looking::ELSEWHERE.' = ?', [$trouble->what]),
            ),
            TroubleKind::Silent => $ads
                ->whereExists(
                    static fn (Builder $f) => $f
                        ->selectRaw('1')
                        ->from('figures as f')
                        ->whereColumn('f.node_id', 'n.id')
                        ->where('f.account_id', $trouble->account_id)
                        ->where('f.day', '>=', Looking::since($client, 8))
                        ->where('f.day', '<', Looking::since($client, 1))
                        ->havingRaw('sum(f.clicks) >= ?', [Looking::CLICKS]),
                )
                ->whereNotExists(
                    static fn (Builder $s) => $s
                        ->from('site_sessions as s')
                        ->whereColumn('s.node_id', 'n.id')
                        ->where('s.day', '>=', Looking::since($client, 8)),
                ),
            TroubleKind::Outside => $ads->whereExists(
                static fn (Builder $o) => $o
                    ->from('outside_changes as o')
                    ->whereColumn('o.node_id', 'n.id')
                    ->where('o.state', 'open')
                    ->where('o.breaks', '>', 0),
            ),
            TroubleKind::Names => $ads->whereExists(
                static fn (Builder $f) => $f
                    ->from('findings as f')
                    ->whereColumn('f.node_id', 'n.id')
                    ->where('f.code', 'name-off-pattern'),
            ),
            TroubleKind::Arrives => $ads
                ->when(
                    ($trouble->about['code'] ?? '') === 'empty-value',
                    static fn (Builder $proven) => $proven->where('n.state', 'proven'),
                )
                ->whereExists(
                    static fn (Builder $s) => $s
                        ->from('site_sessions as s')
                        ->whereColumn('s.node_id', 'n.id')
                        ->where('s.day', '>=', Looking::since($client))
                        ->where('s.views', '>', 0)
                        ->whereIn(
                            DB::raw(ArrivedWith::column($trouble->about['name'] ?? 'source')),
                            $trouble->about['values'] ?? [],
                        ),
                ),
            TroubleKind::Stale, TroubleKind::Feed, TroubleKind::Link => $ads->whereRaw('1 = 0'),
        };
    }
}
