<?php

namespace App\Changes;

use App\Models\Account;
use App\Models\Node;

/**
 * What a change is about, in pieces that one process can hold: elements that stand side by side, with all that is below
 * them.
 */
final class Division
{
    /** So many ads make a piece; what is not twice as many is in one. */
    public const ADS = 25_000;

    /** @var list<list<int>> the widest elements of each piece */
    private array $pieces = [];

    /** @var list<int> elements that stand above several pieces, wider ones first */
    private array $above = [];

    /**
     * @param array<int, list<int>> $below what stands under each element above ads, and is none
     * @param array<int, int> $ads how many stand below each
     */
    private function __construct(
        private readonly Account $account,
        private readonly array $below,
        private readonly array $ads,
        private readonly int $size,
    ) {}

    /**
     * @param list<int>|null $scope only these elements and what is below them
     * @param int $size so many ads make a piece
     */
    public static function of(Account $account, ?array $scope, int $size = self::ADS): self
    {
        $parents = Node::query()
            ->where('account_id', $account->id)
            ->where('is_ad', false)
            ->orderBy('depth')
            ->orderBy('position')
            ->orderBy('id')
            ->toBase()
            ->pluck('parent_id', 'id')
            ->all();
        $ads = Node::query()
            ->where(['account_id' => $account->id, 'is_ad' => true])
            ->groupBy('parent_id')
            ->toBase()
            ->selectRaw('parent_id, count(*) as ads')
            ->pluck('ads', 'parent_id')
            ->all();
        $below = [];
        foreach ($parents as $id => $parent) {
            $below[$parent ?? 0][] = $id;
        }
        foreach (array_reverse($parents, true) as $id => $parent) {
            if ($parent !== null) {
                $ads[$parent] = ($ads[$parent] ?? 0) + ($ads[$id] ?? 0);
            }
        }
        $division = new self($account, $below, $ads, $size);
        $tops = $scope === null ? $below[0] ?? [] : $division->widest($scope, $parents);
        $all = array_sum(array_map($division->size(...), $tops));
        if ($all < 2 * $size) {
            $division->pieces[] = $tops;
        } else {
            $division->divide($tops);
        }

        return $division;
    }

    /** @return list<Piece> numbered from 1: what is decided above them is none */
    public function pieces(): array
    {
        return array_map(
            static fn (array $tops, int $i): Piece => new Piece($i + 1, $tops),
            $this->pieces,
            array_keys($this->pieces),
        );
    }

    /** @return list<int> elements that stand above several pieces, wider ones first */
    public function above(): array
    {
        return $this->above;
    }

    /** @return list<int> the elements below one in which ads stand */
    public function groupsBelow(int $element): array
    {
        $below = $this->below[$element] ?? [];

        return $below === [] ? [$element] : array_merge(...array_map($this->groupsBelow(...), $below));
    }

    /**
     * @param list<int> $scope
     * @param array<int, int|null> $parents
     * @return list<int> those that stand below no other
     */
    private function widest(array $scope, array $parents): array
    {
        $wanted = array_fill_keys($scope, true);
        $elements = Node::query()->where('account_id', $this->account->id)->whereIntegerInRaw('id', $scope)->toBase();

        $isWidest = static function (object $row) use ($wanted, $parents): bool {
            for ($at = $row->parent_id; $at !== null && ! isset($wanted[$at]); $at = $parents[$at] ?? null);

            return $at === null;
        };

        return $elements
            ->orderBy('depth')
            ->orderBy('position')
            ->orderBy('id')
            ->get(['id', 'parent_id'])
            ->filter($isWidest)
            ->pluck('id')
            ->values()
            ->all();
    }

    private function size(int $element): int
    {
        return isset($this->below[$element]) || isset($this->ads[$element]) ? $this->ads[$element] ?? 0 : 1;
    }

    /** @param list<int> $side elements that stand side by side */
    private function divide(array $side): void
    {
        $piece = [];
        $size = 0;
        foreach ($side as $element) {
            $its = $this->size($element);
            if ($size + $its > $this->size && $piece !== []) {
                $this->pieces[] = $piece;
                [$piece, $size] = [[], 0];
            }
            if ($its > $this->size) {
                $this->above[] = $element;
                $this->divide($this->below[$element] ?? $this->adsOf($element));
            } else {
                $piece[] = $element;
                $size += $its;
            }
        }
        if ($piece !== []) {
            $this->pieces[] = $piece;
        }
    }

    /** @return list<int> */
    private function adsOf(int $element): array
    {
        return Node::query()
            ->where(['account_id' => $this->account->id, 'parent_id' => $element])
            ->orderBy('id')
            ->toBase()
            ->pluck('id')
            ->all();
    }
}
