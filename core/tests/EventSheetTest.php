<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\DayOrder;
use Vestigon\Core\Watch\Sheet\EventColumn;
use Vestigon\Core\Watch\Sheet\EventMap;
use Vestigon\Core\Watch\Sheet\EventSheet;

/** Orders and page views out of a sheet, by its map. */
final class EventSheetTest extends TestCase
{
    /**
     * @param list<EventColumn|null> $columns
     * @param list<string|int|float|null> $row
     * @return array<string, mixed>|string
     */
    private static function read(
        array $columns,
        array $row,
        string $decimal = '.',
        ?DayOrder $order = null,
    ): array|string {
        $map = new EventMap($columns, $decimal, $order);
        $digits = static fn (string $currency): int => $currency === 'JPY' ? 0 : 2;
        $read = (new EventSheet($map, new \DateTimeZone('Europe/Berlin'), 'EUR', $digits))->read($row);

        return is_array($read) ? $read['event'] ?? $read['refund'] ?? $read : $read;
    }

    public function test_a_row_with_an_order_is_a_conversion_as_a_server_would_hand_it_in(): void
    {
        self::assertSame(
            [
                'id' => 'sheet T-1',
                'kind' => 'convert',
                'at' => '2026-10-05T07:30:00.000Z',
                'order' => 'T-1',
                'url' => 'https://shop.example/thanks',
                'visitor' => 'v7',
                'click' => 'Q7f',
                'name' => 'Booking',
                'value' => 120_450,
                'currency' => 'EUR',
            ],
            self::read(
                [
                    EventColumn::Order,
                    EventColumn::At,
                    null,
                    EventColumn::Value,
                    EventColumn::Click,
                    EventColumn::Name,
                    EventColumn::Url,
                    EventColumn::Visitor,
                ],
                [
                    'T-1',
                    '2026-10-05 09:30',
                    'paid',
                    '1,204.50',
                    'Q7f',
                    'Booking',
                    'https://shop.example/thanks',
                    'v7',
                ],
            ),
        );
    }

    public function test_a_row_with_a_page_alone_is_a_view(): void
    {
        $columns = [
            EventColumn::At,
            EventColumn::Url,
            EventColumn::Visitor,
            EventColumn::Referrer,
            EventColumn::Order,
        ];

        self::assertSame(
            [
                'id' => 'sheet 2026-10-05T07:30:00.000Z v7 https://shop.example/?utm_source=q',
                'kind' => 'view',
                'at' => '2026-10-05T07:30:00.000Z',
                'url' => 'https://shop.example/?utm_source=q',
                'referrer' => 'https://search.example/',
                'visitor' => 'v7',
            ],
            self::read(
                $columns,
                ['2026-10-05 09:30', 'https://shop.example/?utm_source=q', 'v7', 'https://search.example/', ''],
            ),
        );
        self::assertSame('no-order', self::read($columns, ['2026-10-05 09:30', '', 'v7']));
        self::assertSame('no-page', self::read(array_slice($columns, 0, 2), ['2026-10-05 09:30', '']));
        self::assertSame([], self::read($columns, ['', ' ', null]), 'a row that says nothing');
    }

    /** @return iterable<array{string, string, 2?: DayOrder}> as it stands, and in UTC; or why it can't be read */
    public static function times(): iterable
    {
        yield ['2026-10-05T09:30:00+09:00', '2026-10-05T00:30:00.000Z']; // RFC 3339, 5.6
        yield ['2026-07-05 09:30:15', '2026-07-05T07:30:15.000Z']; // summer time
        yield ['2026-07-05 09:30:15.25', '2026-07-05T07:30:15.000Z'];
        yield ['5.12.2026 09:30', '2026-12-05T08:30:00.000Z']; // winter time
        yield ['2026-12-05', '2026-12-05T11:00:00.000Z']; // a day: its noon
        yield ['05/12/2026 09:30', 'two-days']; // May or December
        yield ['05/12/2026 09:30', '2026-12-05T08:30:00.000Z', DayOrder::Day];
        yield ['05/12/2026 09:30', '2026-05-12T07:30:00.000Z', DayOrder::Month];
        yield ['25/12/2026 09:30', '2026-12-25T08:30:00.000Z'];
        yield ['25/12/2026 09:30', 'no-time', DayOrder::Month];
        yield ['12/25/2026 12:05 AM', '2026-12-24T23:05:00.000Z']; // midnight is 12 a.m.
        yield ['12/25/2026 12:05 p.m.', '2026-12-25T11:05:00.000Z']; // and noon 12 p.m. (common practice)
        yield ['12/25/2026 9:05:10 PM', '2026-12-25T20:05:10.000Z'];
        yield ['12/25/2026 13:05 PM', 'no-time'];
        yield ['2026-12-05 24:10', 'no-time'];
        yield ['soon', 'no-time'];
    }

    #[DataProvider('times')]
    public function test_times_are_in_the_client_s_zone_unless_they_say_theirs(
        string $cell,
        string $at,
        ?DayOrder $order = null,
    ): void {
        $read = self::read([EventColumn::Order, EventColumn::At], ['T', $cell], order: $order);

        self::assertSame($at, is_array($read) ? $read['at'] : $read);
    }

    public function test_amounts_are_whole_minor_units_of_their_currency(): void
    {
        $columns = [EventColumn::Order, EventColumn::At, EventColumn::Value, EventColumn::Currency];
        $value = static fn (array $cells, string $decimal = '.'): mixed => is_array(
            $read = self::read($columns, ['T', '2026-12-05', ...$cells], $decimal),
        ) ? $read['value'] ?? null : $read;

        self::assertSame(1235, $value(['12.345', 'EUR']), 'half up, as invoices are rounded');
        self::assertSame(1200, $value(['1,200', 'JPY']));
        self::assertSame(120_050, $value(['1.200,5', ''], ','));
        self::assertSame(1250, $value([12.5, ''], ','), 'a number of a spreadsheet has no marks');
        self::assertNull($value(['', '']));
        self::assertSame('no-value', $value(['12 %', '']));
        self::assertSame('no-currency', $value(['12', 'Euro']));
        self::assertSame(300, $value(['-3', '']), 'taken back');
        self::assertSame('huge-value', $value(['123456789012345678', '']), 'more than a number can be');
    }

    /** @return iterable<array{list<EventColumn|null>, string|null}> and the reason's first words */
    public static function maps(): iterable
    {
        yield [[EventColumn::At, EventColumn::Order], null];
        yield [[null, EventColumn::Url, EventColumn::At], null];
        yield [[EventColumn::Order, EventColumn::Value], 'no column says when'];
        yield [[EventColumn::At, EventColumn::Value], 'no column says which order or which page'];
        yield [[EventColumn::At, EventColumn::Order, EventColumn::At], 'two columns are said to be the time'];
        yield [[null, null], 'no column says when'];
    }

    /** @param list<EventColumn|null> $columns */
    #[DataProvider('maps')]
    public function test_a_map_says_when_and_which_order_or_page(array $columns, ?string $why): void
    {
        $map = new EventMap($columns);
        self::assertSame($why === null, $map->isUsable());
        try {
            $map->check();
            self::assertNull($why);
        } catch (UnusableInput $e) {
            self::assertStringStartsWith((string) $why, $e->getMessage());
        }
    }
}
