<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Sheet\Certainty;
use Vestigon\Core\Sheet\DayOrder;
use Vestigon\Core\Watch\Sheet\EventColumn;
use Vestigon\Core\Watch\Sheet\EventSuggestion;
use Vestigon\Core\Watch\Sheet\SuggestedEventColumn;

/** What the columns of a sheet of orders or page views say (how they are headed: common practice, no source). */
final class EventSuggestionTest extends TestCase
{
    /** @param list<list<string|int|float|null>> $rows */
    private static function of(array $rows): EventSuggestion
    {
        return EventSuggestion::of($rows, ['nqcid']) ?? self::fail('none of its rows heads it');
    }

    /** @return list<string> what each column means, and how sure that is */
    private static function told(EventSuggestion $suggestion): array
    {
        return array_map(
            static fn (SuggestedEventColumn $c): string => trim("{$c->means?->value} {$c->certainty->value}"),
            $suggestion->columns,
        );
    }

    public function test_headings_say_it_and_cells_make_it_sure(): void
    {
        $of = self::of([
            ['Shop report', '', '', '', '', ''],
            ['Order_ID', 'ordered at', 'NQCID', 'Order  Total', 'Currency', 'Paid'],
            ['T1', '2026-10-05 09:00', 'Q7f', '12,50', 'EUR', 'yes'],
            ['T2', '2026-10-05 09:10', '', '3', '', 'yes'],
        ]);

        self::assertSame(1, $of->headingRow);
        self::assertSame(
            ['order likely', 'at sure', 'click likely', 'value sure', 'currency sure', 'open'],
            self::told($of),
        );
        self::assertSame([',', null], [$of->decimal, $of->order]);
        self::assertTrue($of->map()->isUsable());
    }

    public function test_cells_say_it_where_headings_are_of_no_known_word(): void
    {
        $of = self::of([
            ['Beleg', 'Zeitpunkt', 'Betrag', 'Währung', 'Seite', 'Notiz'],
            ['R-1001', '05.10.2026 09:00', '12,50', 'EUR', 'https://shop.example/a', 'x'],
            ['R-1002', '05.10.2026 09:10', '1.003,00', 'CHF', 'https://shop.example/b', 'x'],
            ['R-1003', '05.10.2026 09:20', '7', 'EUR', 'https://shop.example/b', ''],
            ...array_map(
                static fn (int $n): array => ["R-{$n}", '05.10.2026', $n === 2001 ? 'unpaid' : '8,20', 'EUR', '', ''],
                range(2001, 2010),
            ),
        ]);

        self::assertSame(
            ['order likely', 'at likely', 'value likely', 'currency likely', 'url likely', 'open'],
            self::told($of),
        );
        self::assertSame(',', $of->decimal);
    }

    public function test_a_heading_that_its_cells_contradict_is_asked(): void
    {
        $of = self::of([
            ['Order', 'Time', 'Total', 'Total'],
            ['T1', '2026-10-05', 'paid', '3.50'],
            ['T2', '2026-10-06', 'open', '4.50'],
        ]);

        self::assertSame(['order likely', 'at sure', 'open', 'value sure'], self::told($of));
        self::assertStringContainsString('most of its cells look otherwise', $of->columns[2]->why);
    }

    public function test_of_two_columns_that_are_headed_alike_the_first_has_it(): void
    {
        $of = self::of([
            ['Order', 'Created', 'Closed at'],
            ['T1', '2026-10-05', '2026-10-07'],
        ]);

        self::assertSame(['order likely', 'at sure', 'open'], self::told($of));
        self::assertStringContainsString('stands before it', $of->columns[2]->why);
        self::assertSame(Certainty::Open, $of->columns[2]->certainty);
    }

    /** @return iterable<array{list<string>, DayOrder|null}> */
    public static function days(): iterable
    {
        yield [['05/12/2026', '25/12/2026'], DayOrder::Day];
        yield [['05/12/2026', '12/25/2026'], DayOrder::Month];
        yield [['05/12/2026', '06/12/2026'], null]; // it could be either: a person says it
        yield [['2026-12-05', '2026-12-06'], null];
    }

    /** @param list<string> $cells */
    #[DataProvider('days')]
    public function test_one_day_that_is_sure_tells_the_order_of_all(array $cells, ?DayOrder $order): void
    {
        $rows = array_map(static fn (string $cell): array => ['T', $cell], $cells);

        self::assertSame($order, self::of([['Order', 'Date'], ...$rows])->order);
    }

    public function test_what_has_no_headings_is_no_table(): void
    {
        self::assertNull(EventSuggestion::of([], []));
        self::assertNull(EventSuggestion::of([[1, 2], [3, 4]], []));
        $notes = self::of([['Notes'], ['made by hand']]);
        self::assertFalse($notes->map()->isUsable());
        self::assertNull(EventColumn::headed('Campaign', []));
    }
}
