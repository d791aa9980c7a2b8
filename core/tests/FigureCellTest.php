<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Sheet\DayOrder;
use Vestigon\Core\Sheet\FigureCell;
use Vestigon\Core\Sheet\Layout;
use Vestigon\Core\Sheet\Problem;
use Vestigon\Core\Sheet\RowReader;
use Vestigon\Core\Sheet\SheetMap;
use Vestigon\Core\Sheet\SheetMapReader;

/** Days and numbers out of reports (how they are written: common practice of the trade, no source). */
final class FigureCellTest extends TestCase
{
    /** @return iterable<array{string, string, string|null}> decimal mark, cell, number */
    public static function numbers(): iterable
    {
        yield ['.', '12', '12'];
        yield ['.', '-3.25', '-3.25'];
        yield ['.', '1,234.50', '1234.50'];
        yield ['.', '1,23,456', '123456'];
        yield [',', '1.234,50', '1234.50'];
        yield [',', '1 234,5', '1234.5'];
        yield ['.', "1\u{A0}234\u{202F}567", '1234567'];
        yield ['.', "1'234’567", '1234567'];
        yield ['.', '€ 1,204.50', '1204.50'];
        yield [',', '1.204,50 EUR', '1204.50'];
        yield ['.', '$3', '3'];
        yield ['.', "\u{2212}3", '-3'];
        yield ['.', '12,5', null];
        yield ['.', '1.234,50', null];
        yield [',', '1,234.50', null];
        yield ['.', '1.2.3', null];
        yield ['.', '12 %', null];
        yield ['.', 'none', null];
        yield ['.', '1e5', null];
    }

    #[DataProvider('numbers')]
    public function test_numbers(string $decimal, string $cell, ?string $number): void
    {
        self::assertSame($number, (new FigureCell($decimal))->number($cell, $cell));
    }

    /** A number of a spreadsheet has no marks: what the map says of them does not count for it. */
    public function test_numbers_of_a_spreadsheet_are_what_they_are(): void
    {
        $cell = new FigureCell(',');

        self::assertSame(['12.5', '3', '0.1'], [
            $cell->number('12.5', 12.5),
            $cell->number('3', 3),
            $cell->number('0.1', 0.1),
        ]);
    }

    /** @return iterable<array{string, string|null}> */
    public static function days(): iterable
    {
        yield ['2026-10-05', '2026-10-05']; // ISO 8601-1, 5.2.2.1, extended
        yield ['20261005', '2026-10-05']; // and basic
        yield ['2026/10/05', '2026-10-05'];
        yield ['2026-10-05 00:00:00', '2026-10-05'];
        yield ['2026-10-05T10:20:30Z', '2026-10-05'];
        yield ['5.10.2026', '2026-10-05'];
        yield ['25/10/2026', '2026-10-25'];
        yield ['10/25/2026', '2026-10-25'];
        yield ['7/7/2026', '2026-07-07'];
        yield ['05/10/2026', null]; // May or October
        yield ['2026-02-30', null];
        yield ['2026-1005', null];
        yield ['October', null];
    }

    #[DataProvider('days')]
    public function test_days(string $cell, ?string $day): void
    {
        self::assertSame($day, (new FigureCell('.'))->day($cell));
    }

    public function test_days_with_slashes_in_an_order_that_is_known(): void
    {
        $days = static fn (DayOrder $order): array => array_map(
            (new FigureCell('.', $order))->day(...),
            ['05/10/2026', '25/10/2026', '10/25/2026', '2026-10-05', '5.10.2026'],
        );

        self::assertSame(
            ['2026-10-05', '2026-10-25', null, '2026-10-05', '2026-10-05'],
            $days(DayOrder::Day),
        );
        self::assertSame(['2026-05-10', null, '2026-10-25', '2026-10-05', '2026-10-05'], $days(DayOrder::Month));
    }

    /** @param array<string, string> $more columns, heading → what it means */
    private static function map(array $more): SheetMap
    {
        $columns = ['Ad ID' => 'id', ...$more];

        return SheetMapReader::read(
            new Cursor([
                'format' => SheetMap::FORMAT,
                'dialect' => 'northquay-search',
                'title' => 'Report',
                'decimal' => ',',
                'tables' => [
                    [
                        'title' => 'Report',
                        'level' => 'ad',
                        'columns' => array_map(
                            static fn (string $h, string $m): array => ['heading' => $h, 'means' => $m],
                            array_keys($columns),
                            $columns,
                        ),
                    ],
                ],
            ]),
            Shipped::dialect('northquay-search') ?? self::fail(),
        );
    }

    public function test_a_row_says_figures_of_its_day(): void
    {
        $map = self::map(['Day' => 'day', 'Clicks' => 'clicks', 'Spent' => 'cost']);
        $layout = Layout::in($map, 'Report', [['Ad ID', 'Day', 'Clicks', 'Spent']]) ?? self::fail();
        $reader = new RowReader(Shipped::dialect('northquay-search') ?? self::fail(), $map, $layout, 0, 'A');
        $figures = $reader->read(['9', '5.10.2026', '1.200', '1.044,50'], 2)->said?->figures;

        self::assertSame(['2026-10-05', ['clicks' => '1200', 'cost' => '1044.50']], [
            $figures?->day,
            $figures?->numbers,
        ]);
        $row = $reader->read(['9', '5.10.2026', 'many', ''], 3);
        self::assertNull($row->said?->figures, 'nothing is left of it');
        self::assertSame(
            ['unreadable-figure Clicks'],
            array_map(static fn (Problem $p): string => "{$p->code} {$p->column}", $row->problems),
        );
        self::assertSame([], $layout->problems(0));
    }

    public function test_figures_of_no_day_are_said(): void
    {
        $layout = Layout::in(self::map(['Clicks' => 'clicks']), 'Report', [['Ad ID', 'Clicks']]) ?? self::fail();

        self::assertSame(['no-day'], array_map(static fn (Problem $p): string => $p->code, $layout->problems(0)));
    }
}
