<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Findings\Severity;

/**
 * Gathers what rows say, by element. Rows may come in any order and from several tables: an element may be named by
 * what stands below it before its own row comes.
 *
 * It may hold the elements of some rows only, and hand them on before the next ones come.
 */
final class Gathering
{
    /** @var list<Problem> */
    private array $problems = [];

    /**
     * @param array<string, Element> $elements what was gathered before, by key
     * @param array<string, array{int, string}|null> $parents depth and key of what elements are known to stand under,
     *     by their keys: they stand there until a row says otherwise
     */
    public function __construct(
        private readonly Dialect $dialect,
        private array $elements = [],
        private readonly array $parents = [],
    ) {}

    public function row(Said $said): void
    {
        $above = null;
        foreach ($said->steps as $step) {
            $key = $step->key();
            $element =
                $this->elements[$key]
                ?? Element::first($step, $said->table, $said->row, $this->parents[$key] ?? null);
            if ($above !== null) {
                [$element, $problems] = $element->under($above, $said->table, $said->row);
                array_push($this->problems, ...$problems);
            }
            if ($step === $said->own()) {
                [$element, $problems] = $element->saidBy($said);
                array_push($this->problems, ...$problems);
            } else {
                $element = $element->mentionedAs($step);
            }
            $this->elements[$key] = $element;
            $above = $step;
        }
        $this->keyword($said);
    }

    /** @return array<string, Element> by key, as first named */
    public function elements(): array
    {
        return $this->elements;
    }

    /** @return list<Problem> in the order of the rows that brought them up */
    public function problems(): array
    {
        return $this->problems;
    }

    /** A keyword goes to the nearest group at or above its row. */
    private function keyword(Said $said): void
    {
        if ($said->keyword === null) {
            return;
        }
        $group = $this->dialect->levelOf(Role::Group)?->id;
        foreach ($said->steps as $step) {
            if ($step->level === $group) {
                $this->elements[$step->key()] = $this->elements[$step->key()]->withKeyword($said->keyword);

                return;
            }
        }
        $this->problems[] = new Problem(
            'no-parent',
            Severity::Error,
            $said->table,
            $said->row,
            null,
            "The keyword “{$said->keyword[0]}” stands in no group.",
        );
    }
}
