<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Vestigon\Core\Sheet\Cells;
use Vestigon\Core\Sheet\FigureCell;
use Vestigon\Core\Sheet\Headings;

/**
 * Reads conversions out of a sheet: each row an order, with when, and, as far as it has columns for them, what it was
 * worth, in which currency, which click it followed and what it is called. A row whose value is below zero is taken
 * back of its order.
 */
final readonly class ConversionSheet
{
    /** As shops and customer systems head their columns (common practice, no source). */
    private const HEADINGS = [
        'order' => [
            'order', 'order id', 'order number', 'order no', 'order reference', 'transaction', 'transaction id',
            'transaction number', 'booking', 'booking id', 'booking number', 'booking reference', 'reference',
            'lead id', 'deal id', 'conversion id',
        ],
        'at' => [
            'at', 'time', 'date', 'date and time', 'datetime', 'timestamp', 'order date', 'order time', 'ordered at',
            'created', 'created at', 'booking date', 'booked at', 'conversion time', 'conversion date',
            'transaction date', 'transaction time', 'closed at', 'close date',
        ],
        'value' => [
            'value', 'revenue', 'amount', 'total', 'order value', 'order total', 'conversion value', 'net amount',
            'net value', 'net revenue', 'turnover', 'price',
        ],
        'currency' => ['currency', 'currency code', 'conversion currency'],
        'click' => ['click', 'click id', 'clickid'],
        'name' => ['conversion', 'conversion name', 'conversion type', 'goal', 'event', 'event name', 'action'],
    ];

    /** @param array<string, int> $places of what the rows say */
    private function __construct(
        private array $places,
        private \DateTimeZone $zone,
        private string $currency,
        private FigureCell $figures,
        private Cells $cells,
    ) {}

    /**
     * @param list<string|int|float|null> $row
     * @param list<string> $clicks parameters that platforms hand their click IDs on in: they may head a column too
     * @param \DateTimeZone $zone of times that do not say theirs
     * @param string $currency of values that do not say theirs
     * @param string $decimal the mark in numbers, `.` or `,`
     * @return self|null null: it does not head a column of orders and one of times
     */
    public static function of(
        array $row,
        array $clicks,
        \DateTimeZone $zone,
        string $currency,
        string $decimal = '.',
    ): ?self {
        $known = ['click' => [...self::HEADINGS['click'], ...array_map(Headings::folded(...), $clicks)]];
        $places = [];
        foreach ($row as $place => $cell) {
            $heading = strtr(Headings::folded((string) $cell), ['_' => ' ', '-' => ' ']);
            foreach ($known + self::HEADINGS as $what => $headings) {
                if (in_array($heading, $headings, true)) {
                    $places += [$what => $place];
                }
            }
        }

        return isset($places['order'], $places['at'])
            ? new self($places, $zone, $currency, new FigureCell($decimal), new Cells())
            : null;
    }

    /** Is a value a number, or none, read with this decimal mark? */
    public function understands(string|int|float|null $value): bool
    {
        $cell = $this->cells->text($value);

        return $cell === '' || $this->figures->number($cell, $value) !== null;
    }

    /** @param list<string|int|float|null> $row */
    public function value(array $row): string|int|float|null
    {
        return $row[$this->places['value'] ?? -1] ?? null;
    }

    /**
     * @param list<string|int|float|null> $row
     * @param \Closure(string): int $digits decimal places of a currency
     * @return array{event?: array<string, mixed>, refund?: array<string, mixed>}|string as a server would hand it in; a
     *     word: why it can't be taken; empty: it says nothing
     */
    public function read(array $row, \Closure $digits): array|string
    {
        $cells = array_map($this->cells->text(...), $row);
        if (implode('', $cells) === '') {
            return [];
        }
        $of = fn (string $what): string => $cells[$this->places[$what] ?? -1] ?? '';
        $order = $of('order');
        $at = $this->instant($of('at'));
        $currency = strtoupper($of('currency')) ?: $this->currency;
        $number = $of('value') === '' ? null : $this->figures->number($of('value'), $this->value($row));
        $why = match (true) {
            $order === '' => 'no-order',
            $at === null => 'no-time',
            $of('value') !== '' && $number === null => 'no-value',
            preg_match('/^[A-Z]{3}$/D', $currency) !== 1 => 'no-currency',
            default => null,
        };
        if ($why !== null) {
            return $why;
        }
        $value = $number === null
            ? null
            : BigDecimal::of($number)
                ->withPointMovedRight($digits($currency))
                ->toScale(0, RoundingMode::HALF_UP)
                ->toInt();
        $at = Instant::text($at);
        if ($value !== null && $value < 0) {
            $id = "sheet {$order} {$at} {$value}";

            return ['refund' => ['id' => $id, 'order' => $order, 'at' => $at, 'value' => -$value]];
        }

        return [
            'event' => array_filter(
                [
                    'id' => "sheet {$order}",
                    'kind' => EventKind::Convert->value,
                    'at' => $at,
                    'order' => $order,
                    'click' => $of('click'),
                    'name' => $of('name'),
                    'value' => $value,
                    'currency' => $value === null ? null : $currency,
                ],
                static fn (mixed $v): bool => $v !== null && $v !== '',
            ),
        ];
    }

    /** A time with its offset, or in the zone; a day alone is its noon. Null: it is no time. */
    private function instant(string $cell): ?int
    {
        $exact = Instant::read($cell);
        if ($exact !== null) {
            return $exact;
        }
        $day = $this->figures->day($cell);
        if ($day === null) {
            return null;
        }
        $time = preg_match('/[ T](\d\d?):(\d\d)(?::(\d\d))?/', $cell, $at) === 1 ? $at : ['', '12', '00'];
        $local = \DateTimeImmutable::createFromFormat(
            'Y-m-d H:i:s',
            sprintf('%s %02d:%02d:%02d', $day, $time[1], $time[2], $time[3] ?? 0),
            $this->zone,
        );

        return $local === false ? null : $local->getTimestamp() * 1000;
    }
}
