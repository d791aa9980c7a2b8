<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Sheet;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Vestigon\Core\Sheet\Cells;
use Vestigon\Core\Sheet\FigureCell;
use Vestigon\Core\Watch\EventKind;
use Vestigon\Core\Watch\Instant;

/**
 * Reads events out of a sheet's rows by its map: a row with an order is a conversion (whose value is below zero: taken
 * back of its order), one with a page alone is a view.
 */
final readonly class EventSheet
{
    private Moments $moments;

    private FigureCell $figures;

    private Cells $cells;

    /**
     * @param \DateTimeZone $zone of times that do not say theirs
     * @param string $currency of values that do not say theirs
     * @param \Closure(string): int $digits decimal places of a currency
     */
    public function __construct(
        private EventMap $map,
        \DateTimeZone $zone,
        private string $currency,
        private \Closure $digits,
    ) {
        $this->moments = new Moments($zone, $map->order);
        $this->figures = new FigureCell($map->decimal);
        $this->cells = new Cells();
    }

    /**
     * @param list<string|int|float|null> $row
     * @return array{event?: array<string, mixed>, refund?: array<string, mixed>}|string as a server would hand it in,
     *     of no site; a word: why it can't be taken; empty: it says nothing
     */
    public function read(array $row): array|string
    {
        $cells = array_map($this->cells->text(...), $row);
        if (implode('', $cells) === '') {
            return [];
        }
        $of = fn (EventColumn $column): string => $cells[$this->map->place($column) ?? -1] ?? '';
        $at = $this->moments->read($of(EventColumn::At));
        $isOrder = $this->map->place(EventColumn::Order) !== null;
        $why = match (true) {
            $isOrder && $of(EventColumn::Order) === '' && $of(EventColumn::Url) === '' => 'no-order',
            ! $isOrder && $of(EventColumn::Url) === '' => 'no-page',
            $at === null && $this->moments->couldBeTwo($of(EventColumn::At)) => 'two-days',
            default => $at === null ? 'no-time' : null,
        };
        if ($why !== null || $at === null) {
            return (string) $why;
        }

        return $of(EventColumn::Order) === ''
            ? ['event' => $this->view($of, Instant::text($at))]
            : $this->conversion($of, Instant::text($at), $row[$this->map->place(EventColumn::Value) ?? -1] ?? null);
    }

    /**
     * @param \Closure(EventColumn): string $of
     * @return array<string, mixed>
     */
    private function view(\Closure $of, string $at): array
    {
        $visitor = $of(EventColumn::Visitor);

        return self::given([
            'id' => "sheet {$at} {$visitor} {$of(EventColumn::Url)}",
            'kind' => EventKind::View->value,
            'at' => $at,
            'url' => $of(EventColumn::Url),
            'referrer' => $of(EventColumn::Referrer),
            'visitor' => $visitor,
        ]);
    }

    /**
     * @param \Closure(EventColumn): string $of
     * @return array{event?: array<string, mixed>, refund?: array<string, mixed>}|string
     */
    private function conversion(\Closure $of, string $at, string|int|float|null $raw): array|string
    {
        $order = $of(EventColumn::Order);
        $currency = strtoupper($of(EventColumn::Currency)) ?: $this->currency;
        $cell = $of(EventColumn::Value);
        $number = $cell === '' ? null : $this->figures->number($cell, $raw);
        if ($cell !== '' && $number === null) {
            return 'no-value';
        }
        if (preg_match('/^[A-Z]{3}$/D', $currency) !== 1) {
            return 'no-currency';
        }
        $exact = BigDecimal::of($number ?? 0)
            ->withPointMovedRight(($this->digits)($currency))
            ->toScale(0, RoundingMode::HALF_UP);
        if ($exact->abs()->isGreaterThan(PHP_INT_MAX)) {
            return 'huge-value';
        }
        $value = $number === null ? null : $exact->toInt();
        if ($value !== null && $value < 0) {
            $id = "sheet {$order} {$at} {$value}";

            return ['refund' => ['id' => $id, 'order' => $order, 'at' => $at, 'value' => -$value]];
        }

        return [
            'event' => self::given([
                'id' => "sheet {$order}",
                'kind' => EventKind::Convert->value,
                'at' => $at,
                'order' => $order,
                'url' => $of(EventColumn::Url),
                'referrer' => $of(EventColumn::Referrer),
                'visitor' => $of(EventColumn::Visitor),
                'click' => $of(EventColumn::Click),
                'name' => $of(EventColumn::Name),
                'value' => $value,
                'currency' => $value === null ? null : $currency,
            ]),
        ];
    }

    /**
     * @param array<string, string|int|null> $event
     * @return array<string, string|int>
     */
    private static function given(array $event): array
    {
        return array_filter($event, static fn (mixed $v): bool => $v !== null && $v !== '');
    }
}
