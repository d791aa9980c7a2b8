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
        if ($this->account === null) {
            return [];
        }
        $found = [];
        foreach ($this->named($steps) as $nodes) {
            $nodes = $nodes->toBase()->get();
            $texts = [];
            $live = Text::query()
                ->ofNodes($nodes->pluck('id')->all())
                ->whereNull('until')
                ->toBase()
                ->get(['node_id', 'kind', 'name', 'text']);
            foreach ($live as $text) {
                $texts[$text->node_id][] = $text;
            }
            foreach ($nodes as $node) {
                $element = self::element($node, $texts[$node->id] ?? []);
                $found[$element->step->key()] = [
                    'element' => $element,
                    'node' => $node,
                ];
            }
        }

        return $found;
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

    /** @return array{int, string}|null */
    private static function parent(object $node): ?array
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
