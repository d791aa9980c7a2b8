<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Command\SheetCommand;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;

/** Worked sheets (data/sheets.json): the account that each makes, and what is wrong with it. */
final class WorkedSheetsTest extends TestCase
{
    /** @return iterable<string, array{array<string, mixed>, array<string, mixed>}> */
    public static function sheets(): iterable
    {
        foreach (json_decode((string) file_get_contents(__DIR__.'/data/sheets.json'), true) as $case) {
            yield $case['name'] => [$case['request'], $case['expect']];
        }
    }

    /**
     * @param array<string, mixed> $request
     * @param array<string, mixed> $expected
     */
    #[DataProvider('sheets')]
    public function test_a_worked_sheet_comes_out_as_worked(array $request, array $expected): void
    {
        $answer = (new SheetCommand(Shipped::all()))->answer(new Cursor($request))->document;

        self::assertEquals($expected['account'], $answer['account']);
        $told = array_map(
            static fn (array $p): array => array_diff_key($p, ['says' => true]),
            $answer['problems'],
        );
        self::assertEquals($expected['problems'], $told);
        self::assertSame($expected['counts'], array_intersect_key($answer['counts'], $expected['counts']));
    }
}
