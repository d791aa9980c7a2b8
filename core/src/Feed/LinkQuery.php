<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

use Vestigon\Core\Url\Query;

/**
 * A link whose query is changed piece by piece. What no step is about stays byte for byte; a key is there if a piece,
 * form-decoded, has it, also without `=`.
 */
final class LinkQuery
{
    private readonly string $head;

    private readonly string $tail;

    /** @var list<string>|null null: there is no `?` */
    private ?array $pieces;

    public function __construct(string $link)
    {
        $query = Query::of($link);
        $end = Query::end($link);
        $this->head = substr($link, 0, $query === null ? $end : $end - strlen($query) - 1);
        $this->tail = substr($link, $end);
        $this->pieces = $query === null ? null : explode('&', $query);
    }

    public function __toString(): string
    {
        return $this->head.($this->pieces === null ? '' : '?'.implode('&', $this->pieces)).$this->tail;
    }

    public function has(string $key): bool
    {
        return $this->find($key) !== [];
    }

    /** In place of the first that is there, the others go; or behind all others. */
    public function set(string $key, string $encodedKey, string $encodedValue): void
    {
        $found = $this->find($key);
        if ($found === []) {
            $this->join("{$encodedKey}={$encodedValue}");

            return;
        }
        $this->pieces[$found[0]] = "{$encodedKey}={$encodedValue}";
        $this->remove(array_slice($found, 1));
    }

    public function add(string $encodedKey, string $encodedValue): void
    {
        $this->join("{$encodedKey}={$encodedValue}");
    }

    public function take(string $key): void
    {
        $this->remove($this->find($key));
    }

    /** The first gets the other key and keeps its value as written; the others of both keys go. */
    public function rename(string $from, string $to, string $encodedTo): void
    {
        $found = $this->find($from);
        if ($found === []) {
            return;
        }
        $first = $found[0];
        $equals = strcspn($this->pieces[$first], '=');
        $renamed = $encodedTo.substr($this->pieces[$first], $equals);
        $others = array_diff([...$found, ...$this->find($to)], [$first]);
        $this->pieces[$first] = $renamed;
        $this->remove(array_values(array_unique($others)));
    }

    /** As engine's join: nothing between where `?` or `&` ends it already. */
    private function join(string $piece): void
    {
        if ($this->pieces === null) {
            $this->pieces = [$piece];
        } elseif (end($this->pieces) === '') {
            $this->pieces[count($this->pieces) - 1] = $piece;
        } else {
            $this->pieces[] = $piece;
        }
    }

    /** @return list<int> where pieces with this key stand */
    private function find(string $key): array
    {
        $found = [];
        foreach ($this->pieces ?? [] as $i => $piece) {
            $name = substr($piece, 0, strcspn($piece, '='));
            if ($name === $key || (strpbrk($name, '%+') !== false && Query::decoded($name) === $key)) {
                $found[] = $i;
            }
        }

        return $found;
    }

    /** @param list<int> $some a `?` that nothing follows goes with the last of them */
    private function remove(array $some): void
    {
        if ($some === []) {
            return;
        }
        $left = array_values(array_diff_key($this->pieces ?? [], array_flip($some)));
        $this->pieces = $left === [] || $left === [''] ? null : $left;
    }
}
