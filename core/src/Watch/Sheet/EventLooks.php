<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Sheet;

use Vestigon\Core\Sheet\Cells;
use Vestigon\Core\Sheet\DayOrder;
use Vestigon\Core\Sheet\FigureCell;

/** What the cells of a column look like, whatever its heading. */
final readonly class EventLooks
{
    /** Some values may be words: unpaid. */
    private const MOST = 0.9;

    /** An order may stand there again: what was taken back of it. */
    private const DIFFERENT = 0.8;

    /** @param list<string|int|float> $filled */
    private function __construct(private array $filled) {}

    /** @param list<string|int|float|null> $cells */
    public static function of(array $cells): self
    {
        $plain = new Cells();
        $filled = array_filter($cells, static fn (string|int|float|null $cell): bool => $plain->text($cell) !== '');

        return new self(
            array_values(
                array_map(
                    static fn (mixed $cell): string|int|float => is_string($cell) ? $plain->text($cell) : $cell ?? '',
                    $filled,
                ),
            ),
        );
    }

    /** The decimal mark by which more of them are numbers; where both do, a point. */
    public function decimal(): string
    {
        return $this->numbers(',') > $this->numbers('.') ? ',' : '.';
    }

    /** The order by which more of them are days; null: both do, so a day that could be two is none. */
    public function order(): ?DayOrder
    {
        return match ($this->times(DayOrder::Day) <=> $this->times(DayOrder::Month)) {
            1 => DayOrder::Day,
            -1 => DayOrder::Month,
            default => null,
        };
    }

    /** @return float|null which share of them may be that; null: their looks don't tell, or there are none */
    public function fit(EventColumn $column): ?float
    {
        $n = match ($column) {
            EventColumn::At => max($this->times(DayOrder::Day), $this->times(DayOrder::Month)),
            EventColumn::Value => max($this->numbers('.'), $this->numbers(',')),
            EventColumn::Currency => $this->count('/^[A-Za-z]{3}$/D'),
            EventColumn::Url => $this->count('~^https?://\S+$~iD'),
            default => null,
        };

        return $n === null || $this->filled === [] ? null : $n / count($this->filled);
    }

    /** What they look like; null: that could be anything. */
    public function alone(): ?EventColumn
    {
        if ($this->filled === []) {
            return null;
        }
        foreach ([EventColumn::Url, EventColumn::At, EventColumn::Currency] as $column) {
            if ($this->fit($column) === 1.0) {
                return $column;
            }
        }

        return match (true) {
            $this->fit(EventColumn::Value) >= self::MOST && $this->count('/\D\d\d?\D*$/') > 0 => EventColumn::Value,
            count(array_unique($this->filled)) >= self::DIFFERENT * count($this->filled)
                && count($this->filled) > 1
                && $this->count('/^(?=.*\d)\S{2,64}$/D') === count($this->filled) => EventColumn::Order,
            default => null,
        };
    }

    private function times(DayOrder $order): int
    {
        $moments = new Moments(new \DateTimeZone('UTC'), $order);

        return count(array_filter($this->filled, static fn ($cell): bool => $moments->read((string) $cell) !== null));
    }

    private function numbers(string $decimal): int
    {
        $figures = new FigureCell($decimal);

        return count(
            array_filter($this->filled, static fn ($cell): bool => $figures->number((string) $cell, $cell) !== null),
        );
    }

    private function count(string $pattern): int
    {
        return count(preg_grep($pattern, array_map(strval(...), $this->filled)) ?: []);
    }
}
