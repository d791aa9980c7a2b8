<?php

namespace App\Accounts;

use App\Models\Account;
use App\Models\Node;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;

/**
 * The picture of an account: its levels above the ads, each element as wide as its ads are many.
 *
 * Neighbours that would be too small to be seen are one band, which can be looked into; so every ad is in the picture,
 * however many elements there are, and the picture stays small. The database makes the bands: there may be very many
 * elements.
 */
final class Picture
{
    /** A share of the picture that is smaller than one in so many can't be seen. */
    private const SEEN = 90;

    /** Of what is seen by itself, a run begins with it; of what follows, so much ads as can be seen are a band. */
    private const BANDS = '
        select parent_id, min(depth) depth, count(*) many, min(position) first, max(position) last, sum(ads) ads,
            sum(proven) proven, sum(broken) broken, sum(untracked) untracked
        from (
            select parent_id, depth, position, ads, proven, broken, untracked, ads >= ? is_seen,
                sum(ads >= ?) over below run,
                floor((sum(if(ads >= ?, 0, ads)) over below - if(ads >= ?, 0, ads)) / ?) band
            from (%s) level window below as (partition by parent_id order by position rows unbounded preceding)
        ) banded
        group by parent_id, run, is_seen, if(is_seen, 0, band) order by parent_id, first';

    /**
     * @param int|null $root what is looked into; null: all of it
     * @param array{int, int}|null $band of what stands below that, only the elements of these positions
     * @return list<array{
     *     id: int, parent: int|null, depth: int, name: string, many: int, from: int, to: int, ads: int, proven: int,
     *     broken: int, untracked: int
     * }> the widest levels first; a band has the id of its first element
     */
    public static function of(Account $account, ?int $root, ?array $band = null): array
    {
        $top = Node::query()
            ->where('account_id', $account->id)
            ->where('is_ad', false)
            ->where(static fn ($q) => $root === null ? $q->whereNull('parent_id') : $q->where('id', $root))
            ->toBase()
            ->first(['id', 'parent_id', 'depth', 'position', 'name', 'ads', 'proven', 'broken', 'untracked']);
        if ($top === null) {
            return [];
        }
        $below = self::below($account, [$top->id], $band);
        $sums = (array) (clone $below)
            ->toBase()
            ->selectRaw('sum(ads) ads, sum(proven) proven, sum(broken) broken, sum(untracked) untracked')
            ->first();
        // by what is drawn, whatever was counted above it
        $least = $sums['ads'] / self::SEEN;
        // of what a band is a part of, only that part is in the picture
        $cells = [
            [
                'id' => $top->id,
                'parent' => $top->parent_id,
                'depth' => $top->depth,
                'name' => $top->name,
                'many' => 1,
                'from' => $top->position,
                'to' => $top->position,
                ...self::counts($band === null || $sums['ads'] === null ? (array) $top : $sums),
            ],
        ];
        $ads = count(Trees::dialect($account)->levels) - 1;
        while ($below !== null) {
            $level = self::banded($account, $below, $least);
            array_push($cells, ...$level);
            $single = array_filter($level, static fn (array $c): bool => $c['many'] === 1 && $ads > $c['depth'] + 1);
            $below = $single === [] ? null : self::below($account, array_column($single, 'id'), null);
        }

        return $cells;
    }

    /**
     * @param list<int> $parents
     * @param array{int, int}|null $band
     * @return Builder<Node> those with ads
     */
    private static function below(Account $account, array $parents, ?array $band): Builder
    {
        return Node::query()
            ->forceIndex('nodes_account_id_parent_id_gone_at_position_index')
            ->where('account_id', $account->id)
            ->whereIntegerInRaw('parent_id', $parents)
            ->where('is_ad', false)
            ->where('ads', '>', 0)
            ->when($band !== null, static fn ($q) => $q->whereBetween('position', (array) $band));
    }

    /**
     * @param Builder<Node> $below
     * @param float $least ads that can be seen
     * @return list<array<string, mixed>>
     */
    private static function banded(Account $account, Builder $below, float $least): array
    {
        $level = (clone $below)->toBase()->select([
            'parent_id',
            'depth',
            'position',
            'ads',
            'proven',
            'broken',
            'untracked',
        ]);
        $bands = DB::select(
            sprintf(self::BANDS, $level->toSql()),
            [...array_fill(0, 5, $least), ...$level->getBindings()],
        );
        $ends = self::ends($below, $bands);

        return array_map(
            static function (object $b) use ($ends): array {
                [$first, $last] = [$ends[$b->parent_id][$b->first], $ends[$b->parent_id][$b->last]];

                return [
                    'id' => $first->id,
                    'parent' => $b->parent_id,
                    'depth' => $b->depth,
                    'name' => $b->many === 1 ? $first->name : "{$first->name} … {$last->name}",
                    'many' => $b->many,
                    'from' => $b->first,
                    'to' => $b->last,
                    ...self::counts((array) $b),
                ];
            },
            $bands,
        );
    }

    /**
     * @param Builder<Node> $below
     * @param list<object> $bands
     * @return array<int, array<int, object>> parent → position → who stands there
     */
    private static function ends(Builder $below, array $bands): array
    {
        $ends = [];
        $positions = [...array_column($bands, 'first'), ...array_column($bands, 'last')];
        $nodes = $positions === [] ? [] : (clone $below)->toBase()->whereIntegerInRaw('position', $positions)->get([
            'id',
            'parent_id',
            'position',
            'name',
        ]);
        foreach ($nodes as $node) {
            $ends[$node->parent_id][$node->position] ??= $node;
        }

        return $ends;
    }

    /**
     * @param array<string, mixed> $of
     * @return array{ads: int, proven: int, broken: int, untracked: int}
     */
    private static function counts(array $of): array
    {
        return [
            'ads' => (int) $of['ads'],
            'proven' => (int) $of['proven'],
            'broken' => (int) $of['broken'],
            'untracked' => (int) $of['untracked'],
        ];
    }
}
