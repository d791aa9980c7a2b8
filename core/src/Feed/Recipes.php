<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

use Vestigon\Core\Url\Query;

/** Follows rules on links, and remembers what it has found out about links with the same keys. */
final class Recipes
{
    /** Links of a list have few sets of keys; where they have many, nothing is won by remembering. */
    private const REMEMBERED = 4096;

    /** @var array<string, Recipe> */
    private array $known = [];

    /** @var array<string, array{list<Step>, array<string, list<array{int, Step, int}>>}> by rules, then by column */
    private array $steps = [];

    public function __construct(private readonly Feed $feed) {}

    /**
     * @param array<string, string> $links column → link
     * @param list<int> $taken the rules that are followed
     * @param array<string, string> $item
     * @return array{array<string, string>, array<int, list<string>>} the links; rule → the links for which it lacked
     *     a column's value, once for each step, as the rules stand
     */
    public function follow(array $links, array $taken, array $item): array
    {
        $which = implode(',', $taken);
        [$reading, $steps] = $this->steps[$which] ?? $this->rememberedSteps($which, $taken);
        $values = $empty = [];
        $has = '';
        foreach ($reading as $step) {
            $value = $step->value($item);
            $values[] = (string) $value;
            $has .= $value === null ? '-' : '+';
        }
        foreach ($links as $column => $link) {
            $end = Query::end($link);
            $mark = Query::before($link, '?');
            $query = substr($link, $mark, max(0, $end - $mark));
            $keys = Recipe::keys($query);
            $recipe = $this->known["{$which} {$column} {$has}{$keys}"]
                ?? $this->remembered("{$which} {$column} {$has}{$keys}", Recipe::of($keys, $steps[$column], $has));
            $links[$column] = substr($link, 0, min($mark, $end)).$recipe->made($query, $values).substr($link, $end);
            foreach ($recipe->empty as $rule) {
                $empty[$rule][] = $column;
            }
        }
        ksort($empty);

        return [$links, $empty];
    }

    /**
     * @param list<int> $taken
     * @return array{list<Step>, array<string, list<array{int, Step, int}>>} those that read columns; column → all, with
     *     the rules that they are of, and which of those that read columns they are
     */
    private function steps(array $taken): array
    {
        $reading = [];
        $columns = array_keys($this->feed->links);
        $steps = array_fill_keys($columns, []);
        foreach ($taken as $i) {
            $rule = $this->feed->rules[$i];
            foreach ($rule->steps as $step) {
                foreach (array_intersect($columns, $rule->links ?? $columns) as $column) {
                    $steps[$column][] = [$i, $step, count($reading)];
                }
                if ($step->always === null) {
                    $reading[] = $step;
                }
            }
        }

        return [$reading, $steps];
    }

    /**
     * @param list<int> $taken
     * @return array{list<Step>, array<string, list<array{int, Step, int}>>} as steps() has them
     */
    private function rememberedSteps(string $which, array $taken): array
    {
        if (count($this->steps) === self::REMEMBERED) {
            $this->steps = [];
        }

        return $this->steps[$which] = $this->steps($taken);
    }

    private function remembered(string $name, Recipe $recipe): Recipe
    {
        if (count($this->known) === self::REMEMBERED) {
            $this->known = [];
        }

        return $this->known[$name] = $recipe;
    }
}
