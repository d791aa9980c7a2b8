<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Segment;
use Vestigon\Core\Trace\TraceRequest;

/** The worked clicks of the engine's reference, all platforms. */
final class WorkedClicksTest extends TestCase
{
    /** @return iterable<string, array{array<string, mixed>, array<string, mixed>}> */
    public static function clicks(): iterable
    {
        foreach (
            json_decode(
                (string) file_get_contents(__DIR__.'/data/trace.json'),
                true,
                flags: JSON_THROW_ON_ERROR,
            ) as $case
        ) {
            yield $case['name'] => [$case['request'], $case['expect']];
        }
    }

    /**
     * @param array<string, mixed> $request
     * @param array<string, mixed> $expected
     */
    #[DataProvider('clicks')]
    public function test_sends_what_was_worked_out(array $request, array $expected): void
    {
        $trace = TraceRequest::read(new Cursor($request), Shipped::dialect(...))->trace();

        self::assertSame($expected, array_intersect_key($trace->toArray(), $expected));
        self::assertSame(
            (string) $trace->clickUrl,
            implode('', array_map(static fn (Segment $s): string => $s->text, $trace->segments)),
        );
    }

    /**
     * The click URL alone and the whole trace are made from the same shape, whichever click made it first.
     *
     * @param array<string, mixed> $request
     * @param array<string, mixed> $expected
     */
    #[DataProvider('clicks')]
    public function test_a_shape_made_by_another_click_gives_the_same(array $request, array $expected): void
    {
        $read = TraceRequest::read(new Cursor($request), Shipped::dialect(...));
        $route = Route::of($read->path, $read->settings, $read->hops);
        $route->clickUrl(array_map(static fn (string $v): string => "{$v} & other", $read->context));
        $route->clickUrl([]);

        self::assertSame($expected['clickUrl'], $route->clickUrl($read->context));
        self::assertSame($expected['arrival'], $route->trace($read->context)->arrival);
    }
}
