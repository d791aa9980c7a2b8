<?php

namespace App\Accounts;

use App\Models\Account;
use App\Models\Node;

/** The picture of an account: its levels above the ads, each as wide as its ads are many. */
final class Picture
{
    private const MOST = 1200;

    /**
     * The widest levels first; of a level that has too many, those with most ads.
     *
     * @return list<array{
     *     id: int, parent: int|null, depth: int, name: string, ads: int, proven: int, broken: int,
     *     untracked: int
     * }>
     */
    public static function of(Account $account, ?int $root): array
    {
        $columns = ['id', 'parent_id', 'depth', 'position', 'name', 'ads', 'proven', 'broken', 'untracked'];
        $level = Node::query()
            ->where('account_id', $account->id)
            ->where('is_ad', false)
            ->where(static fn ($q) => $root === null ? $q->whereNull('parent_id') : $q->where('id', $root))
            ->toBase()
            ->get($columns);
        $cells = [];
        while ($level->isNotEmpty() && count($cells) < self::MOST) {
            foreach ($level->sortBy('position') as $n) {
                $cells[] = [
                    'id' => $n->id,
                    'parent' => $n->parent_id,
                    'depth' => $n->depth,
                    'name' => $n->name,
                    'ads' => $n->ads,
                    'proven' => $n->proven,
                    'broken' => $n->broken,
                    'untracked' => $n->untracked,
                ];
            }
            $level = Node::query()
                ->where('account_id', $account->id)
                ->where('is_ad', false)
                ->whereIntegerInRaw('parent_id', $level->pluck('id')->all())
                ->where('ads', '>', 0)
                ->orderByDesc('ads')
                ->limit(self::MOST - count($cells))
                ->toBase()
                ->get($columns);
        }

        return $cells;
    }
}
