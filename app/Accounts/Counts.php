<?php

namespace App\Accounts;

use App\Models\Account;
use App\Models\Node;
use App\Support\Bulk;

/** How many ads stand below each element, by state: counted as they pass, kept where it is not what was kept. */
final class Counts
{
    private const NONE = ['ads' => 0, 'proven' => 0, 'broken' => 0, 'untracked' => 0];

    private const COLUMNS = [
        'ads' => 'int unsigned',
        'proven' => 'int unsigned',
        'broken' => 'int unsigned',
        'untracked' => 'int unsigned',
    ];

    /** @var array<int, array<string, int>> by the element's id */
    private array $below = [];

    public function ad(int $parent, ?string $state): void
    {
        $this->below[$parent] ??= self::NONE;
        $this->below[$parent]['ads']++;
        if ($state !== null) {
            $this->below[$parent][$state]++;
        }
    }

    /** Adds what was counted elsewhere. */
    public function take(self $counts): void
    {
        foreach ($counts->below as $parent => $ads) {
            $this->below[$parent] ??= self::NONE;
            foreach ($ads as $what => $many) {
                $this->below[$parent][$what] += $many;
            }
        }
    }

    public function keep(Account $account): void
    {
        $deepest = (int) Node::query()->where('account_id', $account->id)->max('depth');
        for ($depth = $deepest - 1; $depth >= 0; $depth--) {
            $moved = [];
            $level = Node::query()
                ->where(['account_id' => $account->id, 'depth' => $depth])
                ->toBase()
                ->get(['id', 'parent_id', ...array_keys(self::NONE)]);
            foreach ($level as $row) {
                $now = $this->below[$row->id] ?? self::NONE;
                foreach ($row->parent_id === null ? [] : $now as $what => $many) {
                    $this->below[$row->parent_id] ??= self::NONE;
                    $this->below[$row->parent_id][$what] += $many;
                }
                $was = [
                    'ads' => $row->ads,
                    'proven' => $row->proven,
                    'broken' => $row->broken,
                    'untracked' => $row->untracked,
                ];
                if ($was !== $now) {
                    $moved[] = ['id' => $row->id, ...$now];
                }
            }
            Bulk::update('nodes', self::COLUMNS, $moved);
        }
    }
}
