<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Command\WatchCommand;
use Vestigon\Core\Document\Cursor;

/** Worked stories (data/watch.json): the sessions that events make, and what conversions count for. */
final class WorkedStoriesTest extends TestCase
{
    /** @return iterable<string, array{array<string, mixed>, array<string, mixed>}> */
    public static function stories(): iterable
    {
        foreach (json_decode((string) file_get_contents(__DIR__.'/data/watch.json'), true) as $case) {
            yield $case['name'] => [$case['request'], $case['expect']];
        }
    }

    /**
     * @param array<string, mixed> $request
     * @param array<string, mixed> $expected
     */
    #[DataProvider('stories')]
    public function test_a_worked_story_comes_out_as_worked(array $request, array $expected): void
    {
        self::assertSame($expected, (new WatchCommand())->answer(new Cursor($request))->document);
    }

    /**
     * @param array<string, mixed> $request
     * @param array<string, mixed> $expected
     */
    #[DataProvider('stories')]
    public function test_it_does_so_line_by_line_too(array $request, array $expected): void
    {
        usort($request['events'], static fn (array $a, array $b): int => [self::utc($a['at']), $a['id']]
            <=> [self::utc($b['at']), $b['id']]);
        $lines = array_map(static fn (array $e): string => json_encode($e)."\n", $request['events']);
        $out = fopen('php://memory', 'w+');

        (new WatchCommand())->stream(new Cursor(array_diff_key($request, ['events' => true])), $lines, $out);

        rewind($out);
        self::assertSame($expected, json_decode((string) stream_get_contents($out), true));
    }

    private static function utc(string $at): float
    {
        return (float) (new \DateTimeImmutable($at))->format('U.u');
    }
}
