<?php

declare(strict_types=1);

namespace Vestigon\Core\Account;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Settings;

/** Reads an account document (`vestigon.account/1`); node ids are the keys. */
final class AccountReader
{
    /** @throws UnusableInput with the place of the first thing that is wrong */
    public static function read(Cursor $c, Dialect $dialect): Account
    {
        $nodes = [];
        $parents = [];
        $list = $c->at('nodes')->list();
        foreach ($list as $item) {
            $node = NodeReader::node($item, $dialect);
            if (isset($nodes[$node->id])) {
                $item->at('id')->fail("\"{$node->id}\" is there twice");
            }
            $nodes[$node->id] = $node;
            $parents[$node->id] = $item->has('parent') ? $item->at('parent')->text() : null;
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

        return new Account(
            $dialect,
            $c->has('settings') ? Settings::read($c->at('settings')) : new Settings(),
            $c->has('hops') ? array_map(Hop::read(...), $c->at('hops')->list()) : [],
            $nodes,
            $parents,
        );
    }
}
