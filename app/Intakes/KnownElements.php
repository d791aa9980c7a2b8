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
     * @return array<string, array{element: Element, node: Node, settings: array<string, string>}> by key
     */
    public function of(array $steps): array
    {
        if ($this->account === null) {
            return [];
        }
        $found = [];
        foreach ((new Collection($steps))->groupBy('level') as $level => $some) {
            $nodes = Node::withTrashed()
                ->where(['account_id' => $this->account->id, 'level' => $level])
                ->whereIn('external_id', $some->map(static fn (Step $s): string => $s->id)->unique()->values()->all())
                ->get();
            $parents = Node::withTrashed()
                ->whereIntegerInRaw('id', $nodes->pluck('parent_id')->filter()->unique()->all())
                ->get(['id', 'level', 'depth', 'external_id'])
                ->keyBy('id');
            $texts = Text::query()
                ->whereIntegerInRaw('node_id', $nodes->modelKeys())
                ->whereNull('until')
                ->get(['node_id', 'kind', 'name', 'text'])
                ->groupBy('node_id');
            foreach ($nodes as $node) {
                $element = self::element($node, $parents[$node->parent_id] ?? null, $texts[$node->id] ?? []);
                $found[$element->step->key()] = [
                    'element' => $element,
                    'node' => $node,
                    'settings' => self::named($texts[$node->id] ?? [], 'setting'),
                ];
            }
        }

        return $found;
    }

    /** @param iterable<Text> $texts */
    private static function element(Node $node, ?Node $parent, iterable $texts): Element
    {
        $slots = [];
        foreach ($texts as $text) {
            if (! in_array($text->kind, ['custom', 'setting'], true)) {
                $slots[$text->kind] = $text->text;
            }
        }
        $above = $parent === null || $parent->depth === 0
            ? null
            : new Step($parent->level, $parent->depth, $parent->external_id, false);

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
                self::named($texts, 'custom'),
                true,
                array_map(strval(...), $node->facts ?? []),
            ),
            $above === null ? null : [$above->depth, $above->key()],
            array_map(static fn (array $k): array => [$k['text'], $k['match']], $node->keywords ?? []),
        );
    }

    /**
     * @param iterable<Text> $texts
     * @return array<string, string>
     */
    private static function named(iterable $texts, string $kind): array
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
