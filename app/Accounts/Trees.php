<?php

namespace App\Accounts;

use App\Models\Account;
use App\Models\Node;
use Illuminate\Support\Collection;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Account\Node as CoreNode;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Settings;

/** Hands stored accounts to the core. */
final class Trees
{
    public static function dialect(Account $account): Dialect
    {
        return Shipped::dialect($account->dialect) ?? throw new \RuntimeException("the dialect {$account->dialect} is not shipped");
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
        $nodes = [];
        $parents = [];
        Node::query()->where('account_id', $account->id)->with('liveTexts')->orderBy('id')->chunkById(2000, function (Collection $chunk) use (&$nodes, &$parents): void {
            foreach ($chunk as $node) {
                $nodes[(string) $node->id] = self::node($node);
                $parents[(string) $node->id] = $node->parent_id === null ? null : (string) $node->parent_id;
            }
        });

        return new CoreAccount(self::dialect($account), self::settings($account), self::hops($account), $nodes, $parents);
    }

    /**
     * The paths of some nodes, with one query a level.
     *
     * @param iterable<Node> $nodes all of one account
     * @param array<int, Node>|null $rows the nodes with their ancestors, where they have been read already
     * @return array<int, Path> by node id
     */
    public static function paths(Account $account, iterable $nodes, ?array $rows = null): array
    {
        $rows ??= self::withAncestors($nodes);
        $core = array_map(self::node(...), $rows);
        $dialect = self::dialect($account);
        $paths = [];
        foreach ($nodes as $node) {
            $path = [];
            for ($at = $node->id; $at !== null; $at = $rows[$at]->parent_id) {
                array_unshift($path, $core[$at]);
            }
            $paths[$node->id] = new Path($dialect, $path);
        }

        return $paths;
    }

    /**
     * @param iterable<Node> $nodes
     * @return array<int, Node> with their live texts
     */
    public static function withAncestors(iterable $nodes): array
    {
        $rows = [];
        $wanted = collect($nodes)->pluck('id');
        while ($wanted->isNotEmpty()) {
            $found = Node::query()->whereIn('id', $wanted)->with('liveTexts')->get();
            foreach ($found as $row) {
                $rows[$row->id] = $row;
            }
            $wanted = $found->pluck('parent_id')->filter()->unique()->reject(static fn (int $id): bool => isset($rows[$id]))->values();
        }

        return $rows;
    }

    private static function node(Node $node): CoreNode
    {
        $slots = [];
        $custom = [];
        foreach ($node->liveTexts as $text) {
            if ($text->kind === 'custom') {
                $custom[$text->name] = $text->text;
            } else {
                $slots[$text->kind] = $text->text;
            }
        }

        return new CoreNode($node->level, $node->external_id, $node->name, $node->type, $slots, $custom, $node->facts ?? [], $node->published_name);
    }
}
