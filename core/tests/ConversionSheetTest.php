<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Watch\ConversionSheet;

/** Orders out of a sheet (how their columns are headed: common practice, no source). */
final class ConversionSheetTest extends TestCase
{
    /**
     * @param list<string> $headings
     * @param list<string|int|float|null> $row
     * @return array<string, mixed>|string
     */
    private static function read(array $headings, array $row, string $decimal = '.'): array|string
    {
        $zone = new \DateTimeZone('Europe/Berlin');
        $sheet = ConversionSheet::of($headings, ['nqcid'], $zone, 'EUR', $decimal) ?? self::fail('it heads no orders');
        $read = $sheet->read($row, static fn (string $currency): int => $currency === 'JPY' ? 0 : 2);

        return is_array($read) ? $read['event'] ?? $read['refund'] ?? $read : $read;
    }

    public function test_a_row_is_a_conversion_as_a_server_would_hand_it_in(): void
    {
        self::assertSame(
            [
                'id' => 'sheet T-1',
                'kind' => 'convert',
                'at' => '2026-10-05T07:30:00.000Z',
                'order' => 'T-1',
                'click' => 'Q7f',
                'name' => 'Booking',
                'value' => 120_450,
                'currency' => 'EUR',
            ],
            self::read(
                ['Transaction_ID', 'Created at', 'Order value', 'NQCID', 'Goal'],
                ['T-1', '2026-10-05 09:30', '1,204.50', 'Q7f', 'Booking'],
            ),
        );
    }

    /** @return iterable<array{string, string|null}> as it stands, and in UTC */
    public static function times(): iterable
    {
        yield ['2026-10-05T09:30:00+09:00', '2026-10-05T00:30:00.000Z']; // RFC 3339, 5.6
        yield ['2026-07-05 09:30:15', '2026-07-05T07:30:15.000Z']; // summer time
        yield ['5.12.2026 09:30', '2026-12-05T08:30:00.000Z']; // winter time
        yield ['2026-12-05', '2026-12-05T11:00:00.000Z']; // a day: its noon
        yield ['05/12/2026 09:30', null]; // May or December
        yield ['soon', null];
    }

    #[DataProvider('times')]
    public function test_times_are_in_the_client_s_zone_unless_they_say_theirs(string $cell, ?string $at): void
    {
        $read = self::read(['Order', 'Time'], ['T', $cell]);

        self::assertSame($at ?? 'no-time', is_array($read) ? $read['at'] : $read);
    }

    public function test_amounts_are_whole_minor_units_of_their_currency(): void
    {
        $headings = ['Order', 'Time', 'Value', 'Currency'];
        $value = static fn (array $cells, string $decimal = '.'): mixed => is_array(
            $read = self::read($headings, ['T', '2026-12-05', ...$cells], $decimal),
        ) ? $read['value'] ?? null : $read;

        self::assertSame(1235, $value(['12.345', 'EUR']), 'half up, as invoices are rounded');
        self::assertSame(1200, $value(['1,200', 'JPY']));
        self::assertSame(120_050, $value(['1.200,5', ''], ','));
        self::assertSame(1250, $value([12.5, ''], ','), 'a number of a spreadsheet has no marks');
        self::assertNull($value(['', '']));
        self::assertSame('no-value', $value(['12 %', '']));
        self::assertSame('no-currency', $value(['12', 'Euro']));
        self::assertSame(300, $value(['-3', '']), 'taken back');
    }

    public function test_what_heads_no_orders_is_none(): void
    {
        $of = static fn (array $headings): ?ConversionSheet => ConversionSheet::of(
            $headings,
            [],
            new \DateTimeZone('UTC'),
            'EUR',
        );

        self::assertNull($of(['Campaign', 'Clicks']));
        self::assertNull($of(['Order', 'Value']));
        self::assertNotNull($of(['Value', 'ORDER  ID', 'date']));
    }
}
