<?php

namespace App\Intakes;

use App\Models\Account;
use App\Models\Node;
use App\Models\Text;
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
        $nodes = $this->nodes($steps, ['nodes.*']);
        $texts = [];
        $live = $nodes === [] ? [] : Text::query()
            ->ofNodes(array_column($nodes, 'id'))
            ->whereNull('until')
            ->toBase()
            ->get(['node_id', 'kind', 'name', 'text']);
        foreach ($live as $text) {
            $texts[$text->node_id][] = $text;
        }

        return array_map(
            static fn (object $n): array => ['element' => self::element($n, $texts[$n->id] ?? []), 'node' => $n],
            $nodes,
        );
    }

    /**
     * What they stand under, whether they are gone, and a digest of what sheets have said of them: for most, that is
     * all that is asked.
     *
     * @param list<Step> $steps
     * @return array<string, object> by key
     */
    public function heads(array $steps): array
    {
        return $this->nodes($steps, ['nodes.level', 'nodes.external_id', 'nodes.said', 'nodes.gone_at']);
    }

    /**
     * @param list<Step> $steps
     * @param list<string> $columns
     * @return array<string, object> with what they stand under, by key
     */
    private function nodes(array $steps, array $columns): array
    {
        $nodes = [];
        foreach ($this->account === null ? [] : (new Collection($steps))->groupBy('level') as $level => $some) {
            $rows = Node::withTrashed()
                ->leftJoin('nodes as above', 'above.id', 'nodes.parent_id')
                ->numbered(
                    $this->account->id,
                    $level,
                    $some->map(static fn (Step $s): string => $s->id)->unique()->values()->all(),
                )
                ->select([
                    ...$columns,
                    'above.level as above_level',
                    'above.depth as above_depth',
                    'above.external_id as above_id',
                ])
                ->toBase()
                ->get();
            foreach ($rows as $node) {
                $nodes[(new Step($node->level, 0, $node->external_id, false))->key()] = $node;
            }
        }

        return $nodes;
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
            new Step(
                $node->level,
                $node->depth,
                $node->external_id,
                str_starts_with($node->external_id, '='),
                $node->name,
                $node->type,
            ),
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
