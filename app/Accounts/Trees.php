<?php

namespace App\Accounts;

use App\Dialects\Dialects;
use App\Models\Account;
use App\Models\Node;
use App\Models\Text;
use Illuminate\Support\Collection;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Account\Node as CoreNode;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Settings;

/** Hands stored accounts to the core. */
final class Trees
{
    public static function dialect(Account $account): Dialect
    {
        return app(Dialects::class)->shipped($account->dialect) ?? throw new \RuntimeException("the dialect {$account->dialect} is not shipped");
    }

    public static function settings(Account $account): Settings
    {
        return Settings::read(new Cursor($account->settings));
    }

    /** @return list<Hop> */
    public static function hops(Account $account): array
    {
        return array_map(static fn (array $hop): Hop => Hop::read(new Cursor($hop)), $account->hops);
    }

    /** The whole tree, nodes by their database id. For jobs only. */
    public static function whole(Account $account): CoreAccount
    {
        $wide = self::wide($account);
        $nodes = $wide->nodes;
        $parents = $wide->parents;
        foreach (self::each($account, ads: true) as $row => $node) {
            $nodes[(string) $row->id] = $node;
            $parents[(string) $row->id] = $row->parent_id === null ? null : (string) $row->parent_id;
        }

        return new CoreAccount($wide->dialect, $wide->settings, $wide->hops, $nodes, $parents);
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

        return new CoreAccount(self::dialect($account), self::settings($account), self::hops($account), $nodes, $parents);
    }

    /** An account of its campaigns alone, to find whom a text names. */
    public static function campaigns(Account $account): CoreAccount
    {
        $dialect = self::dialect($account);
        $nodes = [];
        foreach (Node::query()->where('account_id', $account->id)->where('depth', $dialect->levelOf(Role::Campaign)->depth ?? 0)->orderBy('position')->limit(5000)->toBase()->get(['id', 'level', 'external_id', 'name', 'type']) as $row) {
            $nodes[(string) $row->id] = new CoreNode($row->level, $row->external_id, $row->name, $row->type);
        }

        return new CoreAccount($dialect, self::settings($account), [], $nodes, array_fill_keys(array_keys($nodes), null));
    }

    /**
     * The account's ads, or all that stands above them, in chunks.
     *
     * @return \Generator<object, CoreNode> row of the nodes table → the same for the core
     */
    public static function each(Account $account, bool $ads): \Generator
    {
        $deepest = count(self::dialect($account)->levels) - 1;
        $last = 0;
        do {
            $rows = Node::query()->where('account_id', $account->id)->where('depth', $ads ? '=' : '<', $deepest)->where('id', '>', $last)->toBase()->orderBy('id')->limit(2000)->get();
            $texts = self::texts($rows->pluck('id')->all());
            foreach ($rows as $row) {
                yield $row => self::node($row, $texts[$row->id] ?? []);
                $last = $row->id;
            }
        } while ($rows->isNotEmpty());
    }

    /** Some nodes with all above them: a query or two for each level, however many nodes. */
    public static function branch(Account $account, int ...$ids): Branch
    {
        return self::branchOf($account, Node::query()->whereIn('id', $ids)->toBase()->get());
    }

    /** @param Collection<int, object> $rows rows of the nodes table */
    public static function branchOf(Account $account, Collection $rows): Branch
    {
        $found = [];
        $core = [];
        while ($rows->isNotEmpty()) {
            $texts = self::texts($rows->pluck('id')->all());
            $above = [];
            foreach ($rows as $row) {
                $found[$row->id] = $row;
                $core[$row->id] = self::node($row, $texts[$row->id] ?? []);
                if ($row->parent_id !== null && ! isset($found[$row->parent_id])) {
                    $above[$row->parent_id] = $row->parent_id;
                }
            }
            $rows = $above === [] ? collect() : Node::query()->whereIntegerInRaw('id', $above)->toBase()->get();
        }

        return new Branch(self::dialect($account), $found, $core);
    }

    /**
     * @param list<int> $nodes
     * @return array<int, list<object>> live texts by node
     */
    private static function texts(array $nodes): array
    {
        $texts = [];
        foreach (Text::query()->whereIntegerInRaw('node_id', $nodes)->whereNull('until')->toBase()->get(['node_id', 'kind', 'name', 'text']) as $text) {
            $texts[$text->node_id][] = $text;
        }

        return $texts;
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

        return new CoreNode($row->level, $row->external_id, $row->name, $row->type, $slots, $custom, $row->facts === null ? [] : json_decode($row->facts, true), $row->published_name);
    }
}
