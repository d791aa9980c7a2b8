<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Url\Query;
use Vestigon\Core\Url\QueryText;

/** A URL in the making, as pieces that each know their origin. Its operations are those of Query, on pieces. */
final readonly class Pieces
{
    /** @param list<Piece> $list */
    public function __construct(public array $list = []) {}

    /** The URL as far as its structure goes. */
    public function skeleton(): string
    {
        $skeleton = '';
        foreach ($this->list as $piece) {
            $skeleton .= is_string($piece->content) ? $piece->content : Piece::PLACE;
        }

        return $skeleton;
    }

    public function then(self $more): self
    {
        return new self([...$this->list, ...$more->list]);
    }

    /** Percent-encodes all of it. */
    public function encoded(int $times): self
    {
        return $times === 0
            ? $this
            : new self(array_map(static fn (Piece $p): Piece => $p->encoded($times), $this->list));
    }

    /** What stands between two offsets of the skeleton. */
    public function slice(int $from, int $to): self
    {
        $list = [];
        $at = 0;
        foreach ($this->list as $piece) {
            $length = is_string($piece->content) ? strlen($piece->content) : strlen(Piece::PLACE);
            $start = max($from - $at, 0);
            $end = min($to - $at, $length);
            if ($start < $end) {
                $list[] =
                    is_string($piece->content) && $end - $start < $length
                        ? new Piece(substr($piece->content, $start, $end - $start), $piece->origin)
                        : $piece;
            }
            $at += $length;
        }

        return new self($list);
    }

    /** @see Query::join() the same, on pieces; the separator belongs to the query */
    public function join(self $query): self
    {
        $marked = $query->skeleton();
        $text = ltrim($marked, '?&');
        if ($text === '') {
            return $this;
        }
        if (strlen($text) < strlen($marked)) {
            $query = $query->slice(strlen($marked) - strlen($text), strlen($marked));
        }
        $skeleton = $this->skeleton();
        $end = Query::end($skeleton);
        $separator = Query::separator($skeleton, $end);
        $joint = $separator === '' ? [] : [new Piece($separator, $query->list[0]->origin->ofText())];
        if ($end === strlen($skeleton)) {
            return new self([...$this->list, ...$joint, ...$query->list]);
        }

        return new self([
            ...$this->slice(0, $end)->list,
            ...$joint,
            ...$query->list,
            ...$this->slice($end, strlen($skeleton))->list,
        ]);
    }

    /**
     * Takes the query's pieces apart.
     *
     * @return list<array{int, int, string}> from and to as offsets of the skeleton, and the text before the `=`
     */
    public function queryPieces(): array
    {
        $found = [];
        foreach (QueryText::ofUrl($this->skeleton())->parameters() as $piece) {
            $found[] = [$piece->at, $piece->at + strlen($piece->text), $piece->key];
        }

        return $found;
    }

    /** Does a value stand where a key is read? Then keys are known only click by click. */
    public function hasValueInKey(): bool
    {
        foreach ($this->queryPieces() as [$from, , $key]) {
            foreach ($this->slice($from, $from + strlen($key))->list as $piece) {
                if ($piece->content instanceof Value) {
                    return true;
                }
            }
        }

        return false;
    }
}
