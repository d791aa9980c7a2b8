<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

use Vestigon\Core\Url\LinkQuery;

/** Goes through the items of a product list, one in, one out; of those before it knows their IDs only. */
final class Items
{
    /** Characters of a link, at the most. */
    private const LONGEST = 2000;

    /**
     * Digests of 60 bits: of a million items, two that differ are taken for the same with a probability of 4 in ten
     * million.
     *
     * @var array<int, true>
     */
    private array $seen = [];

    public function __construct(private readonly Feed $feed) {}

    /** @param array<string, string> $item column → cell */
    public function next(array $item): Outcome
    {
        $id = $item[$this->feed->id] ?? '';
        $problems = $this->ofId($id);
        [$links, $none, $others] = $this->links($item);
        array_push($problems, ...$none, ...$others);
        $rules = [];
        foreach ($this->feed->rules as $i => $rule) {
            if ($rule->tests !== [] && ! $rule->takes($item)) {
                continue;
            }
            $rules[] = $i;
            foreach ($links as $column => $link) {
                if ($rule->links === null || in_array($column, $rule->links, true)) {
                    array_push($problems, ...self::follow($rule, $item, $link, $column));
                }
            }
            if ($rule->isLast) {
                break;
            }
        }
        foreach ($links as $column => $query) {
            $links[$column] = $link = (string) $query;
            if (strlen($link) > self::LONGEST && mb_strlen($link, 'UTF-8') > self::LONGEST) {
                $problems[] = new Problem(ProblemCode::TooLong, $column);
            }
        }

        return new Outcome($id, $links, $rules, $problems);
    }

    /** @return list<Problem> */
    private function ofId(string $id): array
    {
        if ($id === '') {
            return [new Problem(ProblemCode::NoId)];
        }
        $digest = (int) hexdec(substr(hash('xxh3', $id), 0, 15));
        $isTwice = isset($this->seen[$digest]);
        $this->seen[$digest] = true;

        return $isTwice ? [new Problem(ProblemCode::IdTwice)] : [];
    }

    /**
     * @param array<string, string> $item
     * @return array{array<string, LinkQuery>, list<Problem>, list<Problem>} those that are links; of those that are
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
                $links[$column] = new LinkQuery($link);
            }
        }

        return [$links, $none, $others];
    }

    /**
     * @param array<string, string> $item
     * @return list<Problem>
     */
    private static function follow(Rule $rule, array $item, LinkQuery $link, string $column): array
    {
        $problems = [];
        foreach ($rule->steps as $step) {
            if ($step->kind === StepKind::Take) {
                $link->take($step->key);
            } elseif ($step->kind === StepKind::Rename) {
                $link->rename($step->key, $step->to, $step->encodedKey);
            } elseif ($step->kind === StepKind::Set || ! $link->has($step->key)) {
                $value = $step->value($item);
                if ($value === null) {
                    $problems[] = new Problem(ProblemCode::EmptyColumn, $column);
                } else {
                    $link->set($step->key, $step->encodedKey, $value);
                }
            }
        }

        return $problems;
    }
}
