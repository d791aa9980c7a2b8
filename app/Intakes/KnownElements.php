<?php

namespace App\Intakes;

use App\Models\Account;
use App\Models\Node;
use App\Models\Text;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Collection;
use Vestigon\Core\Sheet\Element;
use Vestigon\Core\Sheet\Facts;
use Vestigon\Core\Sheet\Serving;
use Vestigon\Core\Sheet\Step;

/** Elements of an account as they are known from before, as sheets see them. */
final readonly class KnownElements
{
    public function __construct(private ?Account $account) {}

    /**
     * @param list<Step> $steps
     * @return array<string, array{element: Element, node: object}> by key; the node is a row of its table
     */
    public function of(array $steps): array
    {
        $nodes = $this->nodes($steps);
        $elements = self::elements($nodes);

        return array_map(
            static fn (string $key): array => ['element' => $elements[$key], 'node' => $nodes[$key]],
            array_combine(array_keys($nodes), array_keys($nodes)),
        );
    }

    /**
     * @param list<Step> $steps
     * @return array<string, object> rows of nodes, with what they stand under, by key
     */
    public function nodes(array $steps): array
    {
        $nodes = [];
        foreach ($this->account === null ? [] : $this->named($steps) as $some) {
            foreach ($some->toBase()->get() as $node) {
                $nodes[self::step($node)->key()] = $node;
            }
        }

        return $nodes;
    }

    /**
     * @param array<string, object> $nodes by key, as nodes() has them
     * @return array<string, Element> the same
     */
    public static function elements(array $nodes): array
    {
        $texts = [];
        $live = $nodes === [] ? [] : Text::query()
            ->ofNodes(array_values(array_column($nodes, 'id')))
            ->whereNull('until')
            ->toBase()
            ->get(['node_id', 'kind', 'name', 'text']);
        foreach ($live as $text) {
            $texts[$text->node_id][] = $text;
        }

        return array_map(static fn (object $n): Element => self::element($n, $texts[$n->id] ?? []), $nodes);
    }

    /**
     * @param list<Step> $steps
     * @return iterable<Builder<Node>> by level: their nodes, with what they stand under
     */
    private function named(array $steps): iterable
    {
        foreach ((new Collection($steps))->groupBy('level') as $level => $some) {
            yield Node::withTrashed()
                ->leftJoin('nodes as above', 'above.id', 'nodes.parent_id')
                ->numbered(
                    $this->account->id ?? 0,
                    $level,
                    $some->map(static fn (Step $s): string => $s->id)->unique()->values()->all(),
                )
                ->select(
                    'nodes.*',
                    'above.level as above_level',
                    'above.depth as above_depth',
                    'above.external_id as above_id',
                );
        }
    }

    /** @return array{int, string}|null depth and key of what a node stands under; null: the account */
    public static function parent(object $node): ?array
    {
        return ($node->above_depth ?? 0) === 0
            ? null
            : [
                $node->above_depth,
                (new Step($node->above_level, $node->above_depth, $node->above_id, false))->key(),
            ];
    }

    /**
     * @param object $node a row of the nodes table, with what it stands under
     * @param list<object> $texts live ones
     */
    private static function element(object $node, array $texts): Element
    {
        $slots = [];
        foreach ($texts as $text) {
            if (! in_array($text->kind, ['custom', 'setting'], true)) {
                $slots[$text->kind] = $text->text;
            }
        }

        return Element::known(
            self::step($node),
            new Facts(
                $node->name,
                $node->type,
                match (true) {
                    $node->gone_at !== null => Serving::Gone,
                    $node->standing === 'paused' => Serving::Paused,
                    default => Serving::On,
                },
                $node->published_name,
                $slots,
                self::said($texts, 'custom'),
                true,
                array_map(strval(...), json_decode($node->facts ?? '[]', true)),
                self::said($texts, 'setting'),
            ),
            self::parent($node),
            array_map(
                static fn (array $k): array => [$k['text'], $k['match']],
                json_decode($node->keywords ?? '[]', true),
            ),
        );
    }

    private static function step(object $node): Step
    {
        return new Step(
            $node->level,
            $node->depth,
            $node->external_id,
            str_starts_with($node->external_id, '='),
            $node->name,
            $node->type,
        );
    }

    /**
     * @param list<object> $texts
     * @return array<string, string> of one kind, by name
     */
    private static function said(array $texts, string $kind): array
    {
        $named = [];
        foreach ($texts as $text) {
            if ($text->kind === $kind) {
                $named[$text->name] = $text->text;
            }
        }

        return $named;
    }
}
