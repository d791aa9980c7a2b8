<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Watch\CountSheet;

/** How many clicks a tracker sent on, out of the sheets that trackers hand out. */
final class CountSheetTest extends TestCase
{
    public function test_a_heading_is_wanted_for_days_and_for_clicks(): void
    {
        foreach ([['Date', 'Clicks'], ['Link', 'total_clicks', 'DAY'], ['Hits', 'Date']] as $row) {
            self::assertNotNull(CountSheet::of($row), implode(', ', $row));
        }
        foreach ([['Date', 'Score'], ['Clicks'], [], ['When', 'Clicks']] as $row) {
            self::assertNull(CountSheet::of($row), implode(', ', $row));
        }
    }

    /** @return iterable<string, array{list<string|int|float|null>, array{string, int}|string|null}> */
    public static function rows(): iterable
    {
        yield 'a day as ISO 8601 writes it' => [['2026-11-03', '12'], ['2026-11-03', 12]];
        yield 'a point between thousands' => [['3.11.2026', '1.204'], ['2026-11-03', 1204]];
        yield 'a comma between thousands' => [['2026-11-03', '1,204,000'], ['2026-11-03', 1_204_000]];
        yield 'a number of a workbook' => [['2026-11-03', 12.0], ['2026-11-03', 12]];
        yield 'none' => [['2026-11-03', '0'], ['2026-11-03', 0]];
        yield 'an empty row' => [['', ''], null];
        yield 'a row that is too short' => [[], null];
        yield 'a sum' => [['Total', '1204'], 'no-day'];
        yield 'a day that could be two' => [['03/11/2026', '5'], 'no-day'];
        yield 'no number' => [['2026-11-03', 'many'], 'no-count'];
        yield 'fewer than none' => [['2026-11-03', '-3'], 'no-count'];
        yield 'half a click' => [['2026-11-03', '1.5'], 'no-count'];
        yield 'nothing said' => [['2026-11-03', ''], 'no-count'];
    }

    /**
     * @param list<string|int|float|null> $row
     * @param array{string, int}|string|null $read
     */
    #[DataProvider('rows')]
    public function test_a_row_is_a_day_and_its_clicks(array $row, array|string|null $read): void
    {
        self::assertSame($read, CountSheet::of(['Day', 'Clicks'])?->read($row));
    }
}
