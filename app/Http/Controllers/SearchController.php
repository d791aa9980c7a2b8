<?php

namespace App\Http\Controllers;

use App\Accounts\Finder;
use App\Links\Looking;
use App\Models\Client;
use App\Models\Feed;
use App\Models\Node;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Finds anything of a client by name or number. */
final class SearchController
{
    private const MOST = 12;

    public function __invoke(Request $request, Client $client): JsonResponse
    {
        $words = trim((string) $request->validate(['q' => 'required|string|max:100'])['q']);
        $ids = [];
        foreach ($client->accounts()->pluck('id') as $account) {
            $finder = new Finder($account, self::MOST);
            $ids = [...$ids, ...$finder->find($words, static fn (Builder $q): Builder => $q)[0]];
        }
        $nodes = Node::query()
            ->whereIntegerInRaw('id', $ids)
            ->orderBy('depth')
            ->orderBy('position')
            ->limit(self::MOST)
            ->get(['id', 'account_id', 'level', 'name', 'external_id', 'is_ad', 'state']);
        $like = '%'.addcslashes(mb_strtolower($words), '%_\\').'%';
        $changes = $client
            ->changes()
            ->whereRaw('lower(title) like ?', [$like])
            ->latest('id')
            ->limit(5)
            ->get(['id', 'title', 'status']);

        $links = $client
            ->links()
            ->where(
                static fn ($of) => $of
                    ->whereRaw('lower(title) like ?', [$like])
                    ->orWhere('code', mb_strtolower($words)),
            )
            ->latest('id')
            ->limit(5)
            ->get();
        $feeds = $client
            ->feeds()
            ->whereRaw('lower(name) like ?', [$like])
            ->orderBy('name')
            ->limit(5)
            ->get(['id', 'name']);

        return new JsonResponse([
            'links' => $links->map(Looking::brief(...))->all(),
            'feeds' => $feeds->map(static fn (Feed $f): array => ['id' => $f->id, 'name' => $f->name])->all(),
            'nodes' => $nodes
                ->map(
                    static fn (Node $n): array => [
                        'id' => $n->id,
                        'account' => $n->account_id,
                        'level' => $n->level,
                        'name' => $n->name,
                        'externalId' => $n->external_id,
                        'isAd' => $n->is_ad,
                        'state' => $n->state,
                    ],
                )
                ->all(),
            'changes' => $changes
                ->map(static fn ($c): array => ['id' => $c->id, 'title' => $c->title, 'status' => $c->status])
                ->all(),
        ]);
    }
}
