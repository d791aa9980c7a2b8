<?php

declare(strict_types=1);

namespace Vestigon\Core\Url;

/**
 * A link whose query is changed piece by piece. What no step is about stays byte for byte; a key is there if a piece,
 * form-decoded, has it, also without `=`.
 */
final class LinkQuery
{
    private readonly string $head;

    private readonly string $tail;

    private bool $hasQuery;

    /** @var list<string> */
    private array $pieces;

    public function __construct(string $link)
    {
        $query = Query::of($link);
        $end = Query::end($link);
        $this->head = substr($link, 0, $query === null ? $end : $end - strlen($query) - 1);
        $this->tail = substr($link, $end);
        $this->hasQuery = $query !== null;
        $this->pieces = $query === null ? [] : explode('&', $query);
    }

    public function __toString(): string
    {
        return $this->head.($this->hasQuery ? '?'.implode('&', $this->pieces) : '').$this->tail;
    }

    public function has(string $key): bool
    {
        return $this->find($key) !== [];
    }

    /** In place of the first that is there, the others go; or behind all others, as Query::join. */
    public function set(string $key, string $encodedKey, string $encodedValue): void
    {
        $found = $this->find($key);
        if ($found !== []) {
            $this->replace($found[0], "{$encodedKey}={$encodedValue}", $found);

            return;
        }
        if (end($this->pieces) === '') {
            array_pop($this->pieces);
        }
        $this->pieces[] = "{$encodedKey}={$encodedValue}";
        $this->hasQuery = true;
    }

    /** All with the key go; and a `?` that nothing follows then. */
    public function take(string $key): void
    {
        $found = $this->find($key);
        if ($found !== []) {
            $this->pieces = array_values(array_diff_key($this->pieces, array_flip($found)));
            $this->hasQuery = $this->pieces !== [] && $this->pieces !== [''];
        }
    }

    /** The first gets the other key and keeps its value as written; the others of both keys go. */
    public function rename(string $from, string $to, string $encodedTo): void
    {
        $found = $this->find($from);
        if ($found !== []) {
            $piece = $this->pieces[$found[0]] ?? '';
            $renamed = $encodedTo.substr($piece, strcspn($piece, '='));
            $this->replace($found[0], $renamed, [...$found, ...$this->find($to)]);
        }
    }

    /** @param list<int> $others those that go, but for the one that is replaced */
    private function replace(int $at, string $with, array $others): void
    {
        $left = [];
        foreach ($this->pieces as $i => $piece) {
            if ($i === $at) {
                $left[] = $with;
            } elseif (! in_array($i, $others, true)) {
                $left[] = $piece;
            }
        }
        $this->pieces = $left;
    }

    /** @return list<int> where pieces with this key stand */
    private function find(string $key): array
    {
        $found = [];
        foreach ($this->pieces as $i => $piece) {
            $name = substr($piece, 0, strcspn($piece, '='));
            if ($name === $key || (strpbrk($name, '%+') !== false && Query::decoded($name) === $key)) {
                $found[] = $i;
            }
        }

        return $found;
    }
}
