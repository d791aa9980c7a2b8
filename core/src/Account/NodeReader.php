<?php

declare(strict_types=1);

namespace Vestigon\Core\Account;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** Reads nodes and paths of documents. */
final class NodeReader
{
    /** @throws UnusableInput */
    public static function node(Cursor $c, Dialect $dialect): Node
    {
        $level = $c->at('level')->string();
        if ($dialect->level($level) === null) {
            $c->at('level')->fail("\"{$level}\" is no level of {$dialect->title}");
        }
        $slots = $c->has('slots') ? $c->at('slots')->stringMap() : [];
        foreach (array_keys($slots) as $kind) {
            if (SlotKind::tryFrom((string) $kind) === null) {
                $c->at('slots')->fail("\"{$kind}\" is no slot; there are template, suffix and landing");
            }
        }

        return new Node(
            $level,
            $c->at('id')->text(),
            $c->at('name')->string(),
            $c->has('type') ? $c->at('type')->string() : null,
            $slots,
            $c->has('custom') ? $c->at('custom')->stringMap() : [],
            $c->has('attributes') ? $c->at('attributes')->stringMap() : [],
            $c->has('publishedName') ? $c->at('publishedName')->string() : null,
        );
    }

    /** @throws UnusableInput */
    public static function path(Cursor $list, Dialect $dialect): Path
    {
        $nodes = array_map(static fn (Cursor $c): Node => self::node($c, $dialect), $list->list());
        $depth = -1;
        foreach ($nodes as $i => $node) {
            $here = $dialect->level($node->level)->depth ?? 0;
            if ($here <= $depth) {
                $list->fail("node {$i} (\"{$node->level}\") must be on a narrower level than the one before it");
            }
            $depth = $here;
        }
        if ($nodes === []) {
            $list->fail('at least one node is wanted, the account first');
        }

        return new Path($dialect, $nodes);
    }
}
