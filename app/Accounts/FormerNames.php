<?php

namespace App\Accounts;

use App\Models\Node;
use App\Support\Bulk;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** What elements were called before, each name with the moment until which it was theirs. */
final class FormerNames
{
    /**
     * @param Collection<int, Node> $known by id, as they were
     * @param Collection<int, Node> $now the same, as they are
     */
    public static function keep(Collection $known, Collection $now, \DateTimeInterface $at): void
    {
        $rows = [];
        foreach ($known as $id => $was) {
            if (isset($now[$id]) && $now[$id]->name !== $was->name) {
                $rows[] = [
                    'account_id' => $was->account_id,
                    'node_id' => $id,
                    'name' => $was->name,
                    'until' => $at->format(LiveTexts::PRECISE),
                ];
            }
        }
        Bulk::insert('former_names', $rows);
    }

    /**
     * @param list<int> $nodes
     * @return array<int, string> by id, the names of those that were called otherwise at a moment
     */
    public static function at(array $nodes, \DateTimeInterface $at): array
    {
        return DB::table('former_names')
            ->whereIntegerInRaw('node_id', $nodes)
            ->where('until', '>', $at->format(LiveTexts::PRECISE))
            ->orderByDesc('until') // the last that is written over an id is the first after the moment
            ->pluck('name', 'node_id')
            ->all();
    }
}
