<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Dialect\Dialect;

/** What was known of an account, with what sheets say of it: each element as it is now. */
final class Merged
{
    /** @var array<string, Element> by key: those of the sheets first, in the order of levels */
    public readonly array $elements;

    /** @var array{new: int, changed: int, same: int, gone: int, moved: int} elements below the account */
    public readonly array $counts;

    /**
     * @param array<string, Element> $said by key, in the order of levels
     * @param array<string, Element> $known by key
     * @param array<string, bool> $whole level → elements of it that the sheets do not have are gone
     */
    public function __construct(array $said, array $known, array $whole, private readonly Dialect $dialect)
    {
        $counts = ['new' => 0, 'changed' => 0, 'same' => 0, 'gone' => 0, 'moved' => 0];
        $elements = [];
        foreach ($said as $key => $element) {
            $was = $known[$key] ?? null;
            if ($was === null && $element->isLeftOut()) {
                continue;
            }
            $elements[$key] = $now = $was?->overlaid($element->settled()) ?? $element->settled();
            if ($element->step->depth > 0) {
                $counts[$was === null ? 'new' : ($now->isAs($was) ? 'same' : 'changed')]++;
                $counts['moved'] += (int) ($was !== null && $was->parent !== $now->parent);
            }
        }
        $rest = array_diff_key($known, $elements);
        uasort($rest, static fn (Element $a, Element $b): int => $a->step->depth <=> $b->step->depth);
        foreach ($rest as $key => $element) {
            $above = $elements[$element->parent[1] ?? ''] ?? null;
            $goes =
                ! $element->isGone()
                && $element->step->depth > 0
                && (($whole[$element->step->level] ?? false) || $above?->isGone());
            $elements[$key] = $goes ? $element->gone() : $element;
            $counts['gone'] += (int) $goes;
        }
        uasort($elements, static fn (Element $a, Element $b): int => $a->step->depth <=> $b->step->depth);
        $this->elements = $elements;
        $this->counts = $counts;
    }

    /** @return array<string, string> what the account switches, by name, as far as rows say so */
    public function settings(): array
    {
        foreach ($this->elements as $element) {
            if ($element->step->depth === 0) {
                return $element->facts->settings ?? [];
            }
        }

        return [];
    }

    /** @return list<array<string, mixed>> the nodes of an account document */
    public function nodes(string $account, string $name): array
    {
        $top = $this->dialect->levels[0];
        $ids = $this->ids($account);
        $root = new Step($top->id, 0, $account, false, $name);
        $nodes = [];
        $named = [$root->key() => Element::first($root, 0, 0)->mentionedAs($root)];
        foreach ($named + $this->elements as $key => $element) {
            $nodes[] = [
                'id' => $ids[$key] ?? $element->step->id,
                'parent' => $element->step->depth === 0 ? null : $ids[$element->parent[1] ?? ''] ?? $account,
                ...($this->elements[$key] ?? $element)->written($name),
            ];
        }

        return $nodes;
    }

    /** @return array<string, string> by key; an id that stands at two levels says which it is of */
    private function ids(string $account): array
    {
        $levels = [];
        foreach ($this->elements as $element) {
            $levels[$element->step->id][$element->step->level] = true;
        }
        $ids = [];
        foreach ($this->elements as $key => $element) {
            $id = $element->step->id;
            $ids[$key] =
                $element->step->depth > 0 && (count($levels[$id]) > 1 || $id === $account)
                    ? "{$element->step->level}:{$id}"
                    : $id;
        }

        return $ids;
    }
}
