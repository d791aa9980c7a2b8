<?php

namespace App\Accounts;

use App\Support\Bulk;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Plan\Slug;

/** What elements were called before, each name with the moment until which it was theirs. */
final class FormerNames
{
    /** Of an account's former names so many are looked at, the last ones. */
    private const MOST = 5000;

    /**
     * @param Collection<int, object> $known rows of nodes by id, as they were
     * @param Collection<int, object> $now the same, as they are
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

    /**
     * Names and their slugs that were elements' of an account until some time before, and that none has now.
     *
     * @return array<string, string> → what the element is called now
     */
    public static function before(int $account, \DateTimeInterface $at): array
    {
        $former = DB::table('former_names')
            ->join('nodes', 'nodes.id', 'former_names.node_id')
            ->where('former_names.account_id', $account)
            ->where('until', '<', $at->format(LiveTexts::PRECISE))
            ->orderByDesc('until')
            ->limit(self::MOST)
            ->get(['former_names.name as was', 'nodes.name as is']);
        $names = [];
        foreach ($former as $one) {
            if (Slug::of($one->was) !== Slug::of($one->is)) {
                $names[$one->was] = $names[Slug::of($one->was)] = $one->is;
            }
        }
        $taken = DB::table('nodes')
            ->where('account_id', $account)
            ->whereNull('gone_at')
            ->whereIn('name', array_map(strval(...), array_keys($names)))
            ->pluck('name')
            ->flatMap(static fn (string $name): array => [$name, Slug::of($name)])
            ->flip();

        return array_diff_key($names, $taken->all());
    }
}
