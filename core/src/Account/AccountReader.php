<?php

declare(strict_types=1);

namespace Vestigon\Core\Account;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Settings;

/**
 * Reads an account document (`vestigon.account/1`); node ids are the keys. What is gone is left out, with what stands
 * below it.
 */
final class AccountReader
{
    private const GONE = 'gone';

    /** @throws UnusableInput with the place of the first thing that is wrong */
    public static function read(Cursor $c, Dialect $dialect): Account
    {
        $nodes = [];
        $parents = [];
        $gone = [];
        $list = $c->at('nodes')->list();
        foreach ($list as $item) {
            $node = NodeReader::node($item, $dialect);
            if (isset($nodes[$node->id])) {
                $item->at('id')->fail("\"{$node->id}\" is there twice");
            }
            $nodes[$node->id] = $node;
            $parents[$node->id] = $item->has('parent') ? $item->at('parent')->text() : null;
            if ($item->has('standing') && $item->at('standing')->string() === self::GONE) {
                $gone[$node->id] = true;
            }
        }
        foreach ($list as $item) {
            $id = $item->at('id')->text();
            $depth = static fn (string $key): int => $dialect->level($nodes[$key]->level)->depth ?? 0;
            $parent = $parents[$id];
            if ($parent !== null && ! isset($nodes[$parent])) {
                $item->at('parent')->fail("there is no node \"{$parent}\"");
            }
            if ($parent === null ? $depth($id) > 0 : $depth($parent) >= $depth($id)) {
                $item->at('parent')->fail('a parent on a wider level is wanted');
            }
        }

        $account = new Account(
            $dialect,
            $c->has('settings') ? Settings::read($c->at('settings')) : new Settings(),
            $c->has('hops') ? array_map(Hop::read(...), $c->at('hops')->list()) : [],
            $nodes,
            $parents,
        );

        if ($gone === []) {
            return $account;
        }
        $isThere = static fn (string|int $key): bool => array_intersect_key(
            $gone,
            array_flip($account->keysTo((string) $key)),
        ) === [];

        return $account->only(array_filter($nodes, $isThere, ARRAY_FILTER_USE_KEY));
    }
}
