<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

/** Goes through the items of a product list, one in, one out; of those before it knows their IDs only. */
final class Items
{
    /** Characters of a link, at the most. */
    private const LONGEST = 2000;

    /**
     * Digests of 64 bits: of a million items, two that differ are taken for the same with a probability of 3 in a
     * hundred million.
     *
     * @var array<int, true>
     */
    private array $seen = [];

    private readonly Recipes $recipes;

    public function __construct(private readonly Feed $feed)
    {
        $this->recipes = new Recipes($feed);
    }

    /** @param array<string, string> $item column → cell */
    public function next(array $item): Outcome
    {
        $id = $item[$this->feed->id] ?? '';
        $problems = $this->ofId($id);
        [$links, $none, $others] = $this->links($item);
        array_push($problems, ...$none, ...$others);
        $rules = $this->taken($item);
        [$links, $empty] = $this->recipes->follow($links, $rules, $item);
        foreach ($empty as $columns) {
            foreach ($columns as $column) {
                $problems[] = new Problem(ProblemCode::EmptyColumn, $column);
            }
        }
        foreach ($links as $column => $link) {
            if (strlen($link) > self::LONGEST && mb_strlen($link, 'UTF-8') > self::LONGEST) {
                $problems[] = new Problem(ProblemCode::TooLong, $column);
            }
        }

        return new Outcome($id, $links, $rules, $problems);
    }

    /**
     * @param array<string, string> $item
     * @return list<int> the rules that take it
     */
    private function taken(array $item): array
    {
        $taken = [];
        foreach ($this->feed->rules as $i => $rule) {
            if ($rule->tests === [] || $rule->takes($item)) {
                $taken[] = $i;
                if ($rule->isLast) {
                    break;
                }
            }
        }

        return $taken;
    }

    /** @return list<Problem> */
    private function ofId(string $id): array
    {
        if ($id === '') {
            return [new Problem(ProblemCode::NoId)];
        }
        /** @var array{1: int} $digest */
        $digest = unpack('q', hash('xxh3', $id, true));
        $isTwice = isset($this->seen[$digest[1]]);
        $this->seen[$digest[1]] = true;

        return $isTwice ? [new Problem(ProblemCode::IdTwice)] : [];
    }

    /**
     * @param array<string, string> $item
     * @return array{array<string, string>, list<Problem>, list<Problem>} those that are links; of those that are
     *     not: nothing there, something else
     */
    private function links(array $item): array
    {
        $links = $none = $others = [];
        foreach ($this->feed->links as $column => $kind) {
            $link = $item[$column] ?? '';
            if ($link === '') {
                $none[] = new Problem(ProblemCode::NoLink, $column);
            } elseif (preg_match('~^https?://[^/?#\s]~i', $link) !== 1) {
                $others[] = new Problem(ProblemCode::NotHttp, $column);
            } else {
                $links[$column] = $link;
            }
        }

        return [$links, $none, $others];
    }
}
