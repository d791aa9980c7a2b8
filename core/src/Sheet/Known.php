<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\NodeReader;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** An account as it was known before an import (`vestigon.account/1`), element by element. */
final class Known
{
    /**
     * @return array<string, Element> by key
     *
     * @throws UnusableInput
     */
    public static function read(Cursor $account, Dialect $dialect): array
    {
        $steps = $parents = $elements = [];
        $list = $account->at('nodes')->list();
        foreach ($list as $at => $c) {
            $node = NodeReader::node($c, $dialect);
            $steps[$node->id] = self::step($node, $dialect);
            $parents[$at] = $c->has('parent') ? $c->at('parent')->text() : null;
        }
        foreach ($list as $at => $c) {
            $node = NodeReader::node($c, $dialect);
            $parent = $parents[$at] === null
                ? null
                : $steps[$parents[$at]] ?? $c->at('parent')->fail("there is no node \"{$parents[$at]}\"");
            $step = $steps[$node->id];
            $elements[$step->key()] = Element::known(
                $step,
                new Facts(
                    $node->name,
                    $node->type,
                    $c->has('standing') ? $c->at('standing')->enum(Serving::class) : null,
                    $node->publishedName,
                    $node->slots,
                    $node->custom,
                    true,
                    $node->attributes,
                ),
                $parent === null || $parent->depth === 0 ? null : [$parent->depth, $parent->key()],
                $c->has('keywords') ? array_map(self::keyword(...), $c->at('keywords')->list()) : [],
            );
        }

        return $elements;
    }

    /** @return array{string, string} */
    private static function keyword(Cursor $c): array
    {
        return [$c->at('text')->string(), $c->at('match')->string()];
    }

    /** Its id may begin with its level, where the id stands at another level too. */
    private static function step(Node $node, Dialect $dialect): Step
    {
        $own = "{$node->level}:";
        $id = str_starts_with($node->id, $own) ? substr($node->id, strlen($own)) : $node->id;

        return new Step(
            $node->level,
            $dialect->level($node->level)->depth ?? 0,
            $id,
            str_starts_with($id, '='),
            $node->name,
            $node->type,
        );
    }
}
