<?php

namespace App\Results;

/** What is asked of results. */
final readonly class Question
{
    /**
     * @param list<Dimension> $by lines are told by these, one within the other
     * @param string $from first day, in the client's time zone
     * @param string $to last day
     * @param list<array{by: Dimension, is: list<string|int>, not: bool, part?: string|null}> $where only what has one
     *     of the values, or none of them; with a part: only where the names have it (NameParts)
     * @param int|null $reading read as it was meant; null: as it arrived
     * @param array<int, string> $parts place in `by` → the part of the element's name that stands in its place, as a
     *     field
     */
    public function __construct(
        public array $by,
        public string $from,
        public string $to,
        public array $where = [],
        public ?int $reading = null,
        public array $parts = [],
    ) {}

    /** The same of other days. */
    public function during(string $from, string $to): self
    {
        return new self($this->by, $from, $to, $this->where, $this->reading, $this->parts);
    }

    /** Can what platforms say be laid beside the lines? */
    public function knowsFigures(): bool
    {
        return Dimension::knowFigures([...$this->by, ...array_column($this->where, 'by')]);
    }

    /** Does it not matter which day of a week a record is of? */
    public function isByWeeks(): bool
    {
        $asked = [...$this->by, ...array_column($this->where, 'by')];

        return ! in_array(Dimension::Day, $asked, true) && ! in_array(Dimension::Month, $asked, true);
    }

    /** @return list<Dimension> those of lines and of conditions, but for time; the same list for the same set */
    public function dimensions(): array
    {
        $asked = [...$this->by, ...array_column($this->where, 'by')];

        return array_values(
            array_filter(
                Dimension::cases(),
                static fn (Dimension $d): bool => ! $d->isTime() && in_array($d, $asked, true),
            ),
        );
    }
}
