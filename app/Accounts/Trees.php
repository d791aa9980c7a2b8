<?php

namespace App\Accounts;

use App\Agreements\Agreements;
use App\Dialects\Dialects;
use App\Models\Account;
use App\Models\Node;
use App\Models\Text;
use App\Models\Tracker;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Account\Node as CoreNode;
use Vestigon\Core\Compile\Progress;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Settings;

/** Hands stored accounts to the core. */
final class Trees
{
    private const CHUNK = 2000;

    public static function dialect(Account $account): Dialect
    {
        return app(Dialects::class)->of($account->client_id, $account->dialect);
    }

    private static function names(Account $account): NamedNodes
    {
        return new NamedNodes(
            $account,
            self::dialect($account),
            app(Agreements::class)->names($account->client_id),
        );
    }

    /** @param \DateTimeInterface|null $at null: now */
    public static function settings(Account $account, ?\DateTimeInterface $at = null): Settings
    {
        $settings = new Settings();
        $switched = self::liveAt(
            Text::query()
                ->where('kind', 'setting')
                ->whereIn(
                    'node_id',
                    Node::withTrashed()
                        ->where(['account_id' => $account->id, 'depth' => 0])
                        ->select('id'),
                ),
            $at,
        );
        foreach ($switched->toBase()->pluck('text', 'name') as $name => $text) {
            $settings = $settings->with(Setting::from($name), $text);
        }

        return $settings;
    }

    /** @return list<Hop> */
    public static function hops(Account $account): array
    {
        return Tracker::query()->where('client_id', $account->client_id)->orderBy('id')->get()->map->hop()->all();
    }

    /** The whole tree, nodes by their database id. For jobs only. */
    public static function whole(Account $account, Progress $progress = new Progress()): CoreAccount
    {
        $progress->step('reading the account');
        $wide = self::wide($account);
        $nodes = $wide->nodes;
        $parents = $wide->parents;
        foreach (self::each($account, ads: true) as $row => $node) {
            $nodes[(string) $row->id] = $node;
            $parents[(string) $row->id] = $row->parent_id === null ? null : (string) $row->parent_id;
            $progress->ad();
        }

        return new CoreAccount($wide->dialect, $wide->settings, $wide->hops, $nodes, $parents);
    }

    /**
     * Some ads with all that stands above them: those that are broken first, from all over the account.
     *
     * @param list<int>|null $scope only what is below these nodes
     */
    public static function few(Account $account, int $most, ?array $scope): CoreAccount
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
        $rows = self::upwards($account, $ids);
        $texts = self::texts(array_map(static fn (object $r): int => $r->id, $rows));
        usort(
            $rows,
            static fn (object $a, object $b): int => [$a->depth, $a->position] <=> [$b->depth, $b->position],
        );
        $nodes = $parentsOf = [];
        $names = self::names($account);
        foreach ($rows as $row) {
            $nodes[(string) $row->id] = $names->named($row, self::node($row, $texts[$row->id] ?? []));
            $parentsOf[(string) $row->id] = $row->parent_id === null ? null : (string) $row->parent_id;
        }

        return new CoreAccount(
            self::dialect($account),
            self::settings($account),
            self::hops($account),
            $nodes,
            $parentsOf,
        );
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

    /** What stands above the ads, nodes by their database id. */
    public static function wide(Account $account): CoreAccount
    {
        $nodes = [];
        $parents = [];
        foreach (self::each($account, ads: false) as $row => $node) {
            $nodes[(string) $row->id] = $node;
            $parents[(string) $row->id] = $row->parent_id === null ? null : (string) $row->parent_id;
        }

        return new CoreAccount(
            self::dialect($account),
            self::settings($account),
            self::hops($account),
            $nodes,
            $parents,
        );
    }

    /** An account of its campaigns alone, to find whom a text names. */
    public static function campaigns(Account $account): CoreAccount
    {
        $dialect = self::dialect($account);
        $nodes = [];
        foreach (
            Node::query()
                ->where('account_id', $account->id)
                ->where('depth', $dialect->levelOf(Role::Campaign)->depth ?? 0)
                ->orderBy('position')
                ->limit(5000)
                ->toBase()
                ->get(['id', 'level', 'external_id', 'name', 'type']) as $row
        ) {
            $nodes[(string) $row->id] = new CoreNode($row->level, $row->external_id, $row->name, $row->type);
        }

        return new CoreAccount(
            $dialect,
            self::settings($account),
            [],
            $nodes,
            array_fill_keys(array_keys($nodes), null),
        );
    }

    /**
     * The account's ads, or all that stands above them, in chunks.
     *
     * @return \Generator<object, CoreNode> row of the nodes table → the same for the core
     */
    public static function each(Account $account, bool $ads): \Generator
    {
        $deepest = count(self::dialect($account)->levels) - 1;
        $names = self::names($account);
        foreach ($ads ? [$deepest] : range(0, $deepest - 1) as $depth) {
            yield from self::level($account, $depth, $names);
        }
    }

    /**
     * Along the index: left to itself the server reads a level from its beginning for each chunk.
     *
     * @return \Generator<object, CoreNode>
     */
    private static function level(Account $account, int $depth, NamedNodes $names): \Generator
    {
        $last = 0;
        do {
            $rows = Node::query()
                ->forceIndex('nodes_account_id_depth_index')
                ->where(['account_id' => $account->id, 'depth' => $depth])
                ->where('id', '>', $last)
                ->toBase()
                ->orderBy('id')
                ->limit(self::CHUNK)
                ->get();
            $texts = self::texts($rows->pluck('id')->all());
            foreach ($rows as $row) {
                yield $row => $names->named($row, self::node($row, $texts[$row->id] ?? []));
            }
            $last = $rows->last()->id ?? 0;
        } while ($rows->count() === self::CHUNK);
    }

    /** Some nodes with all above them, in two queries. */
    public static function branch(Account $account, int ...$ids): Branch
    {
        return self::with($account, self::upwards($account, array_values($ids)));
    }

    /** The same with the texts and names of a moment. */
    public static function branchAt(Account $account, \DateTimeInterface $at, int ...$ids): Branch
    {
        return self::with($account, self::upwards($account, array_values($ids)), $at);
    }

    /** @param Collection<int, object> $rows rows of the nodes table */
    public static function branchOf(Account $account, Collection $rows): Branch
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
        $texts = self::texts(array_keys($found), $at);
        foreach ($at === null ? [] : FormerNames::at(array_keys($found), $at) as $id => $name) {
            $found[$id] = (object) (['name' => $name] + (array) $found[$id]);
        }
        $core = [];
        $names = self::names($account);
        foreach ($found as $id => $row) {
            $core[$id] = $names->named($row, self::node($row, $texts[$id] ?? []));
        }

        return new Branch(self::dialect($account), $found, $core);
    }

    /**
     * @param list<int> $ids
     * @return list<object> rows of the nodes and of all above them
     */
    private static function upwards(Account $account, array $ids): array
    {
        if ($ids === []) {
            return [];
        }
        $marks = implode(',', array_fill(0, count($ids), '?'));

        return DB::select(
            "with recursive up as (select * from nodes where account_id = ? and id in ({$marks}) union select n.* "
                .'from nodes n join up on n.id = up.parent_id) select * from up',
            [$account->id, ...$ids],
        );
    }

    /**
     * @param list<int> $nodes
     * @param \DateTimeInterface|null $at null: now
     * @return array<int, list<object>> live texts by node
     */
    private static function texts(array $nodes, ?\DateTimeInterface $at = null): array
    {
        $texts = [];
        foreach (
            self::liveAt(Text::query()->whereIntegerInRaw('node_id', $nodes)->where('kind', '!=', 'setting'), $at)
                ->toBase()
                ->get(['node_id', 'kind', 'name', 'text']) as $text
        ) {
            $texts[$text->node_id][] = $text;
        }

        return $texts;
    }

    /**
     * @param Builder<Text> $texts
     * @return Builder<Text>
     */
    private static function liveAt(Builder $texts, ?\DateTimeInterface $at): Builder
    {
        $then = $at?->format(LiveTexts::PRECISE);

        return $then === null
            ? $texts->whereNull('until')
            : $texts
                ->where('since', '<=', $then)
                ->where(static fn ($w) => $w->whereNull('until')->orWhere('until', '>', $then));
    }

    /** @param list<object> $texts */
    private static function node(object $row, array $texts): CoreNode
    {
        $slots = [];
        $custom = [];
        foreach ($texts as $text) {
            if ($text->kind === 'custom') {
                $custom[$text->name] = $text->text;
            } else {
                $slots[$text->kind] = $text->text;
            }
        }

        return new CoreNode(
            $row->level,
            $row->external_id,
            $row->name,
            $row->type,
            $slots,
            $custom,
            $row->facts === null ? [] : json_decode($row->facts, true),
            $row->published_name,
        );
    }
}
