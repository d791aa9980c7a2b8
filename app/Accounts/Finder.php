<?php

namespace App\Accounts;

use App\Models\Node;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Query\Builder as Plain;
use Illuminate\Support\Facades\DB;

/**
 * Finds an account's elements: by the beginnings of all words that are typed, by how their number begins, or by its
 * last characters.
 *
 * It answers in a moment at any size: no more than some are found, and of words that very many have no more than a part
 * is looked at. Then there are more.
 */
final readonly class Finder
{
    /** An end of a number that is shorter says nothing. */
    private const SHORTEST_END = 3;

    /** From so many elements on, one word is as common as another. */
    private const COMMON = 4_000;

    /** Rows that are read for an answer. */
    private const LOOKED_AT = 120_000;

    /** @param int $most that are found */
    public function __construct(private int $account, private int $most) {}

    /**
     * @param \Closure(Builder<Node>): Builder<Node> $narrowed of all elements those that may be found
     * @return array{list<int>, bool} ids, in no order; are there more?
     */
    public function find(string $words, \Closure $narrowed): array
    {
        $found = [];
        $more = false;
        foreach ($this->queries($words, $narrowed) as $query) {
            $rows = DB::select(
                $query->toSql().' limit '.($this->most + 1).' rows examined '.self::LOOKED_AT,
                $query->getBindings(),
            );
            $more = $more || count($rows) > $this->most || DB::scalar('select @@warning_count') > 0;
            $found += array_fill_keys(array_column($rows, 'id'), true);
        }

        return [array_slice(array_keys($found), 0, $this->most), $more || count($found) > $this->most];
    }

    /**
     * The same of a query, whole: for work that takes its time. Each word is read once, whoever has it.
     *
     * @param Builder<Node> $query of the account's nodes
     */
    public static function narrow(Builder $query, int $account, string $words): void
    {
        $query->where(static function (Builder $q) use ($account, $words): void {
            foreach (self::beginnings($words) as [$column, $like]) {
                $q->orWhere($column, 'like', $like);
            }
            $terms = NameWords::in($words);
            if ($terms !== []) {
                $q->orWhere(static function (Builder $n) use ($account, $terms): void {
                    foreach ($terms as $term) {
                        $n->whereIn(
                            'nodes.id',
                            static fn (Plain $w) => $w
                                ->select('node_id')
                                ->from('name_words')
                                ->where('account_id', $account)
                                ->where('word', 'like', "{$term}%"),
                        );
                    }
                });
            }
        });
    }

    /**
     * @param \Closure(Builder<Node>): Builder<Node> $narrowed
     * @return list<Builder<Node>> one for each end of a number, one for names
     */
    private function queries(string $words, \Closure $narrowed): array
    {
        $all = fn (): Builder => $narrowed(
            Node::query()->where('nodes.account_id', $this->account),
        )->select('nodes.id');
        $queries = array_map(
            static fn (array $number): Builder => $all()->where($number[0], 'like', $number[1]),
            self::beginnings($words),
        );
        $terms = NameWords::in($words);

        return $terms === [] ? $queries : [...$queries, $this->named($all(), $terms)];
    }

    /**
     * Begins with the word that the fewest have.
     *
     * @param Builder<Node> $query
     * @param non-empty-list<string> $terms
     * @return Builder<Node>
     */
    private function named(Builder $query, array $terms): Builder
    {
        if (count($terms) > 1) {
            $have = array_combine($terms, array_map($this->have(...), $terms));
            asort($have);
            $terms = array_map(strval(...), array_keys($have));
        }
        $first = array_shift($terms);
        foreach ($terms as $i => $term) {
            $query->join(
                "name_words as w{$i}",
                static fn ($on) => $on
                    ->on("w{$i}.node_id", 'w.node_id')
                    ->where("w{$i}.word", 'like', "{$term}%"),
            );
        }

        return $query
            ->fromRaw('name_words w straight_join nodes on nodes.id = w.node_id')
            ->where('w.account_id', $this->account)
            ->where('w.word', 'like', "{$first}%");
    }

    private function have(string $term): int
    {
        return (int) DB::scalar(
            'select count(*) from (select 1 from name_words where account_id = ? and word like ? limit '
                .self::COMMON
                .') some',
            [$this->account, "{$term}%"],
        );
    }

    /** @return list<array{string, string}> column and pattern of what numbers that are found begin with */
    private static function beginnings(string $words): array
    {
        $patterns = [];
        foreach (array_unique([$words, mb_strtoupper($words), mb_strtolower($words)]) as $typed) {
            $patterns[] = ['nodes.external_id', addcslashes($typed, '%_\\').'%'];
            if (mb_strlen($typed) >= self::SHORTEST_END) {
                $backwards = implode('', array_reverse(mb_str_split($typed)));
                $patterns[] = ['nodes.id_backwards', addcslashes($backwards, '%_\\').'%'];
            }
        }

        return $patterns;
    }
}
