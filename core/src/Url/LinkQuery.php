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

    /** @var list<string> the key of each piece, decoded */
    private array $keys = [];

    public function __construct(string $link)
    {
        $end = Query::end($link);
        $mark = Query::before($link, '?');
        $this->hasQuery = $mark < $end;
        $this->head = substr($link, 0, min($mark, $end));
        $this->tail = $end < strlen($link) ? substr($link, $end) : '';
        $this->pieces = $this->hasQuery ? explode('&', substr($link, $mark + 1, $end - $mark - 1)) : [];
        foreach ($this->pieces as $piece) {
            $name = substr($piece, 0, Query::before($piece, '='));
            $this->keys[] = strpbrk($name, '%+') === false ? $name : Query::decoded($name);
        }
    }

    public function __toString(): string
    {
        return $this->head.($this->hasQuery ? '?'.implode('&', $this->pieces) : '').$this->tail;
    }

    public function has(string $key): bool
    {
        return in_array($key, $this->keys, true);
    }

    /** In place of the first that is there, the others go; or behind all others, as Query::join. */
    public function set(string $key, string $encodedKey, string $encodedValue): void
    {
        if ($this->has($key)) {
            $found = $this->find($key);
            $this->replace($found[0], $key, "{$encodedKey}={$encodedValue}", $found);

            return;
        }
        if (end($this->pieces) === '') {
            array_pop($this->pieces);
            array_pop($this->keys);
        }
        $this->pieces[] = "{$encodedKey}={$encodedValue}";
        $this->keys[] = $key;
        $this->hasQuery = true;
    }

    /** All with the key go; and a `?` that nothing follows then. */
    public function take(string $key): void
    {
        $found = $this->find($key);
        if ($found !== []) {
            $this->pieces = array_values(array_diff_key($this->pieces, array_flip($found)));
            $this->keys = array_values(array_diff_key($this->keys, array_flip($found)));
            $this->hasQuery = $this->pieces !== [] && $this->pieces !== [''];
        }
    }

    /** The first gets the other key and keeps its value as written; the others of both keys go. */
    public function rename(string $from, string $to, string $encodedTo): void
    {
        $found = $this->find($from);
        if ($found !== []) {
            $piece = $this->pieces[$found[0]] ?? '';
            $renamed = $encodedTo.substr($piece, Query::before($piece, '='));
            $this->replace($found[0], $to, $renamed, [...$found, ...$this->find($to)]);
        }
    }

    /** @param list<int> $others those that go, but for the one that is replaced */
    private function replace(int $at, string $key, string $with, array $others): void
    {
        $gone = array_flip(array_diff($others, [$at]));
        $this->pieces = array_values(array_diff_key(array_replace($this->pieces, [$at => $with]), $gone));
        $this->keys = array_values(array_diff_key(array_replace($this->keys, [$at => $key]), $gone));
    }

    /** @return list<int> where pieces with this key stand */
    private function find(string $key): array
    {
        return array_keys($this->keys, $key, true);
    }
}
