<?php

namespace App\Results;

/** What is asked of results. */
final readonly class Question
{
    /**
     * @param list<By> $by lines are told by these, one within the other
     * @param string $from first day, in the client's time zone
     * @param string $to last day
     * @param list<array{by: By, is: list<string|int>, not: bool}> $where only what has one of the values, or none of
     *     them
     * @param int|null $reading read as it was meant; null: as it arrived
     */
    public function __construct(
        public array $by,
        public string $from,
        public string $to,
        public array $where = [],
        public ?int $reading = null,
    ) {}

    /** The same of other days. */
    public function during(string $from, string $to): self
    {
        return new self($this->by, $from, $to, $this->where, $this->reading);
    }

    /**
     * The same told by something else.
     *
     * @param list<By> $by
     */
    public function by(array $by): self
    {
        return new self($by, $this->from, $this->to, $this->where, $this->reading);
    }

    /** @param list<array{by: By, is: list<string|int>, not: bool}> $where */
    public function where(array $where): self
    {
        return new self($this->by, $this->from, $this->to, $where, $this->reading);
    }

    /**
     * Only those of the conditions.
     *
     * @param \Closure(By): bool $which
     */
    public function only(\Closure $which): self
    {
        return $this->where(
            array_values(array_filter($this->where, static fn (array $w): bool => $which($w['by']))),
        );
    }

    /** Can what platforms say be laid beside the lines? */
    public function knowsFigures(): bool
    {
        return self::areOfFigures($this->asked());
    }

    /** Of how many weeks it does not matter which day a record is of; none: days or months are told apart. */
    public function mostWeeks(): int
    {
        $most = PHP_INT_MAX;
        foreach ($this->asked() as $by) {
            $most = min($most, match ($by->dimension) {
                Dimension::Day, Dimension::Month => 0,
                Dimension::Week => 1,
                default => PHP_INT_MAX,
            });
        }

        return $most;
    }

    /** @return list<By> those of lines and of conditions, but for time */
    public function columns(): array
    {
        return array_values(array_filter($this->asked(), static fn (By $by): bool => ! $by->isTime()));
    }

    /** @param list<By> $all do platforms say something by all of them? */
    public static function areOfFigures(array $all): bool
    {
        return ! in_array(null, array_map(static fn (By $b): ?string => $b->dimension->ofFigures($b->key), $all), true);
    }

    /** @param list<By> $all is what was bought told apart by them? */
    public static function areOfItems(array $all): bool
    {
        return in_array(Dimension::Item, array_map(static fn (By $b): Dimension => $b->dimension, $all), true);
    }

    /** @return list<By> */
    public function asked(): array
    {
        return [...$this->by, ...array_column($this->where, 'by')];
    }
}
