<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

use Vestigon\Core\Url\LinkQuery;

/**
 * What rules make of each link whose query has the same keys: found out once, by following them on a link that has
 * marks for values, and then only filled in.
 */
final readonly class Recipe
{
    /**
     * @param string $format the query with its `?`, as vsprintf takes it: the columns' values, then the link's
     * @param list<int> $empty the rules that lacked a column's value, once for each step
     */
    private function __construct(private string $format, private bool $keepsValues, public array $empty) {}

    /**
     * @param string $query with its `?`; '': there is none
     * @return string what is the same in all queries that have one recipe
     */
    public static function keys(string $query): string
    {
        return (string) preg_replace('~=[^&]*~', '=', $query);
    }

    /**
     * @param string $keys of the query
     * @param list<array{int, Step, int}> $steps with the rules that they are of, and which of those that read columns
     * @param string $has of each step that reads columns, if they have something: `+` or `-`
     */
    public static function of(string $keys, array $steps, string $has): self
    {
        $columns = $count = strlen($has);
        $marked = preg_replace_callback('~=~', static function () use (&$count): string {
            return '='.self::mark(++$count);
        }, $keys);
        $link = new LinkQuery((string) $marked);
        $empty = [];
        foreach ($steps as [$rule, $step, $column]) {
            $value = $step->always ?? ($has[$column] === '+' ? self::mark($column + 1) : null);
            if (! $step->follow($link, $value)) {
                $empty[] = $rule;
            }
        }
        $query = str_replace('%', '%%', (string) $link);
        preg_match_all('~==(\d+)=~', $query, $kept);

        return new self(
            (string) preg_replace('~==(\d+)=~', '=%$1\$s', $query),
            max([0, ...array_map(intval(...), $kept[1])]) > $columns,
            $empty,
        );
    }

    /**
     * @param string $query that of the link
     * @param list<string> $values encoded, of the steps that read columns
     */
    public function made(string $query, array $values): string
    {
        if ($this->keepsValues) {
            preg_match_all('~=([^&]*)~', $query, $found);
            array_push($values, ...$found[1]);
        }

        return vsprintf($this->format, $values);
    }

    /** No key has a `=` in it, nor has anything that is encoded: behind another one it begins a mark. */
    private static function mark(int $number): string
    {
        return "={$number}=";
    }
}
