<?php

namespace App\Numbers;

use App\Models\Account;
use App\Models\Client;
use App\Models\Node;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Numbers\By;
use Vestigon\Core\Numbers\Lookup;
use Vestigon\Core\Numbers\Named;

/** A client's elements by number, end of a number, or name of today or before; those that are gone too. */
final class Elements implements Lookup
{
    /** Elements that one cell can be; more say no more. */
    private const MOST = 20;

    private const CHUNK = 500;

    /** Elements whose place is kept at hand. */
    private const AT_HAND = 100_000;

    /** @var array<int, Account> */
    private readonly array $accounts;

    /** @var array<int, object{id: int, parent_id: int|null, name: string}> wider elements by id */
    private array $wider = [];

    public function __construct(Client $client)
    {
        $this->accounts = $client->accounts()->get()->keyBy('id')->all();
    }

    public function of(By $by, array $cells): array
    {
        $found = [];
        foreach (array_chunk($cells, self::CHUNK) as $some) {
            $found += match ($by) {
                By::Number => $this->told($some, 'external_id', $this->where('external_id', $some)),
                By::Name => $this->named($some),
                By::Ending => $this->ending($some),
            };
        }

        return $found;
    }

    /**
     * @param list<string> $cells
     * @return array<array-key, list<Named>>
     */
    private function named(array $cells): array
    {
        $found = $this->told($cells, 'name', $this->where('name', $cells));
        $former = DB::table('former_names')
            ->whereIntegerInRaw('account_id', array_keys($this->accounts))
            ->whereIn('name', $cells)
            ->get(['node_id', 'name']);
        $nodes = $this->elements(
            Node::withTrashed()->whereIntegerInRaw('id', $former->pluck('node_id')->unique()->all()),
        );
        foreach ($former as $f) {
            $node = $nodes[$f->node_id] ?? null;
            $isCalledSo = $node !== null && in_array($node->id, array_column($found[$f->name] ?? [], 'id'), true);
            if ($node !== null && ! $isCalledSo) {
                $found[$f->name][] = $node->called($f->name);
            }
        }

        return $found;
    }

    /**
     * @param list<string> $cells
     * @return array<array-key, list<Named>>
     */
    private function ending(array $cells): array
    {
        $backwards = static fn (string $text): string => implode('', array_reverse(mb_str_split($text)));
        $query = Node::withTrashed()
            ->whereIntegerInRaw('account_id', array_keys($this->accounts))
            ->where(static function (Builder $q) use ($cells, $backwards): void {
                foreach ($cells as $cell) {
                    $q->orWhere('id_backwards', 'like', addcslashes($backwards($cell), '%_\\').'%');
                }
            })
            ->limit(count($cells) * self::MOST);
        $byEnd = [];
        $lengths = array_unique(array_map(mb_strlen(...), $cells));
        foreach ($this->elements($query) as $named) {
            foreach ($lengths as $length) {
                $byEnd[mb_substr($named->number, -$length)][] = $named;
            }
        }

        return array_intersect_key($byEnd, array_fill_keys($cells, true));
    }

    /**
     * @param list<string> $cells
     * @return Builder<Node>
     */
    private function where(string $column, array $cells): Builder
    {
        return Node::withTrashed()
            ->whereIntegerInRaw('account_id', array_keys($this->accounts))
            ->whereIn($column, $cells)
            ->limit(count($cells) * self::MOST);
    }

    /**
     * @param list<string> $cells
     * @param Builder<Node> $query
     * @return array<array-key, list<Named>>
     */
    private function told(array $cells, string $column, Builder $query): array
    {
        $known = [];
        foreach ($this->elements($query) as $named) {
            $known[$column === 'name' ? $named->name : $named->number][] = $named;
        }

        return array_intersect_key($known, array_fill_keys($cells, true));
    }

    /**
     * @param Builder<Node> $query
     * @return array<int, Named> by id
     */
    private function elements(Builder $query): array
    {
        $rows = $query
            ->toBase()
            ->get(['id', 'account_id', 'parent_id', 'level', 'external_id', 'name', 'gone_at', 'is_ad'])
            ->all();
        $this->lookAbove(array_column($rows, 'parent_id'));
        $named = [];
        foreach ($rows as $row) {
            $above = [];
            for ($id = $row->parent_id; $id !== null; $id = $this->wider[$id]->parent_id) {
                $above[] = $id;
            }
            $account = $this->accounts[$row->account_id];
            $names = array_map(fn (int $id): string => $this->wider[$id]->name, array_reverse($above));
            $named[$row->id] = new Named(
                $row->id,
                "{$account->id} {$row->level}",
                $row->external_id,
                $row->name,
                array_reverse($above),
                implode(' › ', $names),
                isGone: $row->gone_at !== null,
                isAd: (bool) $row->is_ad,
            );
        }

        return $named;
    }

    /** @param array<array-key, int|null> $ids whose place is wanted */
    private function lookAbove(array $ids): void
    {
        if (count($this->wider) > self::AT_HAND) {
            $this->wider = [];
        }
        $asked = array_unique(array_filter($ids, static fn (?int $id): bool => $id !== null));
        while (($asked = array_values(array_filter($asked, fn (int $id): bool => ! isset($this->wider[$id])))) !== []) {
            $next = [];
            foreach (array_chunk($asked, 1000) as $some) {
                $rows = Node::withTrashed()->whereIntegerInRaw('id', $some)->toBase()->get(['id', 'parent_id', 'name']);
                foreach ($rows as $row) {
                    $this->wider[$row->id] = $row;
                    $next[] = $row->parent_id;
                }
            }
            $asked = array_unique(array_filter($next, static fn (?int $id): bool => $id !== null));
        }
    }
}
