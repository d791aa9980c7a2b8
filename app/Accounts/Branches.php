<?php

namespace App\Accounts;

use App\Models\Account;
use App\Models\Node;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Some elements of an account with all that stands above them, for the core. */
final class Branches
{
    private const AT_ONCE = 2000;

    /** Some nodes with all above them, in two queries. */
    public static function of(Account $account, int ...$ids): Branch
    {
        return self::with($account, self::upwards($account, array_values($ids)));
    }

    /** The same with the texts and names of a moment. */
    public static function at(Account $account, \DateTimeInterface $at, int ...$ids): Branch
    {
        return self::with($account, self::upwards($account, array_values($ids)), $at);
    }

    /** @param Collection<int, object> $rows rows of the nodes table */
    public static function ofRows(Account $account, Collection $rows): Branch
    {
        $parents = array_values(array_unique(array_filter($rows->pluck('parent_id')->all(), is_int(...))));

        return self::with($account, [...$rows->all(), ...self::upwards($account, $parents)]);
    }

    /**
     * @param list<object> $rows rows of the nodes table, with all that stands above each
     */
    private static function with(Account $account, array $rows, ?\DateTimeInterface $at = null): Branch
    {
        $found = [];
        foreach ($rows as $row) {
            $found[$row->id] = $row;
        }
        $texts = StoredTexts::of(array_keys($found), $at);
        foreach ($at === null ? [] : FormerNames::at(array_keys($found), $at) as $id => $name) {
            $found[$id] = (object) (['name' => $name] + (array) $found[$id]);
        }
        $core = [];
        $names = Trees::names($account);
        foreach ($found as $id => $row) {
            $core[$id] = $names->named($row, StoredTexts::node($row, $texts[$id] ?? []));
        }

        return new Branch(Trees::dialect($account), $found, $core);
    }

    /**
     * @param list<int> $ids
     * @return list<object> rows of the nodes and of all above them, each once
     */
    public static function upwards(Account $account, array $ids): array
    {
        $rows = [];
        foreach (array_chunk($ids, self::AT_ONCE) as $some) {
            $marks = implode(',', array_fill(0, count($some), '?'));
            $found = DB::select(
                "with recursive up as (select * from nodes where account_id = ? and id in ({$marks}) union select n.* "
                    .'from nodes n join up on n.id = up.parent_id) select * from up',
                [$account->id, ...$some],
            );
            $rows += array_column($found, null, 'id');
        }

        return array_values($rows);
    }

    /**
     * @param list<int> $nodes
     * @return list<int> the nodes and all below them that are no ads
     */
    public static function below(Account $account, array $nodes): array
    {
        $all = [];
        for (
            $level = $nodes;
            $level !== [];
            $level = Node::query()
                ->where('account_id', $account->id)
                ->where('is_ad', false)
                ->whereIntegerInRaw('parent_id', $level)
                ->pluck('id')
                ->all()
        ) {
            array_push($all, ...$level);
        }

        return $all;
    }

    /**
     * Some ads, those that are broken first, from all over the account.
     *
     * @param list<int>|null $scope only what is below these nodes
     * @return list<int>
     */
    public static function someOfEachState(Account $account, int $most, ?array $scope): array
    {
        $parents = $scope === null ? null : self::below($account, $scope);
        $ids = [];
        foreach (['broken', 'untracked', 'proven', null] as $state) {
            $ids = [
                ...$ids,
                ...Node::query()
                    ->where(['account_id' => $account->id, 'is_ad' => true, 'state' => $state])
                    ->when(
                        $parents !== null,
                        static fn ($q) => $q->where(
                            static fn ($w) => $w
                                ->whereIntegerInRaw('parent_id', (array) $parents)
                                ->orWhereIntegerInRaw('id', (array) $scope),
                        ),
                    )
                    ->orderBy('position')
                    ->limit(intdiv($most, 4))
                    ->pluck('id')
                    ->all(),
            ];
        }

        return $ids;
    }
}
