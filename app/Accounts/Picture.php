<?php

namespace App\Accounts;

use App\Models\Account;
use App\Models\Node;
use Illuminate\Support\Collection;

/**
 * The picture of an account: its levels above the ads, each element as wide as its ads are many.
 *
 * Neighbours that would be too small to be seen are one band, which can be looked into; so every ad is in the picture,
 * however many elements there are, and the picture stays small.
 */
final class Picture
{
    /** A share of the picture that is smaller than one in so many can't be seen. */
    private const SEEN = 90;

    /** Of all that stands on a level; names only of what is drawn. */
    private const COLUMNS = [
        'id',
        'parent_id',
        'depth',
        'position',
        'ads',
        'proven',
        'broken',
        'untracked',
    ];

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
            ->first(self::COLUMNS);
        if ($top === null) {
            return [];
        }
        $below = self::below($account, [$top->id], $band);
        // by what is drawn, whatever was counted above it
        $least = $below->sum('ads') / self::SEEN;
        // of what a band is a part of, only that part is in the picture
        $cells = [[...self::cell([$top]), ...$band === null ? [] : self::sums($below->all())]];
        $ads = count(Trees::dialect($account)->levels) - 1;
        while ($below->isNotEmpty()) {
            $level = self::banded($below, $least);
            array_push($cells, ...$level);
            $single = array_filter($level, static fn (array $c): bool => $c['many'] === 1 && $ads > $c['depth'] + 1);
            $below = self::below($account, array_column($single, 'id'), null);
        }

        return self::named($cells);
    }

    /**
     * @param list<array<string, mixed>> $cells
     * @return list<array<string, mixed>>
     */
    private static function named(array $cells): array
    {
        $names = Node::query()
            ->whereIntegerInRaw('id', [...array_column($cells, 'id'), ...array_column($cells, 'last')])
            ->pluck('name', 'id');

        return array_map(
            static fn (array $c): array => [
                ...array_diff_key($c, ['last' => 0]),
                'name' => $c['many'] === 1 ? $names[$c['id']] : "{$names[$c['id']]} … {$names[$c['last']]}",
            ],
            $cells,
        );
    }

    /**
     * @param list<int> $parents
     * @param array{int, int}|null $band
     * @return Collection<int, object> those with ads, in their order
     */
    private static function below(Account $account, array $parents, ?array $band): Collection
    {
        return $parents === []
            ? new Collection()
            : Node::query()
                ->forceIndex('nodes_below')
                ->where('account_id', $account->id)
                ->whereIntegerInRaw('parent_id', $parents)
                ->where('is_ad', false)
                ->where('ads', '>', 0)
                ->when($band !== null, static fn ($q) => $q->whereBetween('position', (array) $band))
                ->orderBy('parent_id')
                ->orderBy('position')
                ->toBase()
                ->get(self::COLUMNS);
    }

    /**
     * @param Collection<int, object> $level
     * @param float $least ads that can be seen
     * @return list<array<string, mixed>>
     */
    private static function banded(Collection $level, float $least): array
    {
        $cells = [];
        $band = [];
        $ads = 0;
        $close = static function () use (&$band, &$ads, &$cells): void {
            if ($band !== []) {
                $cells[] = self::cell($band);
            }
            [$band, $ads] = [[], 0];
        };
        foreach ($level as $node) {
            if ($node->ads >= $least || ($band !== [] && $band[0]->parent_id !== $node->parent_id)) {
                $close();
            }
            $band[] = $node;
            if (($ads += $node->ads) >= $least) {
                $close();
            }
        }
        $close();

        return $cells;
    }

    /**
     * @param non-empty-list<object> $nodes neighbours
     * @return array<string, mixed>
     */
    private static function cell(array $nodes): array
    {
        [$first, $last] = [$nodes[0], $nodes[count($nodes) - 1]];

        return [
            'id' => $first->id,
            'parent' => $first->parent_id,
            'depth' => $first->depth,
            'last' => $last->id,
            'many' => count($nodes),
            'from' => $first->position,
            'to' => $last->position,
            ...self::sums($nodes),
        ];
    }

    /**
     * @param array<array-key, object> $nodes
     * @return array{ads: int, proven: int, broken: int, untracked: int}
     */
    private static function sums(array $nodes): array
    {
        $sum = static fn (string $what): int => array_sum(array_column($nodes, $what));

        return [
            'ads' => $sum('ads'),
            'proven' => $sum('proven'),
            'broken' => $sum('broken'),
            'untracked' => $sum('untracked'),
        ];
    }
}
