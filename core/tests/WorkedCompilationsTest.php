<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Command\Compile;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;

/** Faults that were seen (data/compile.json has the requests, what happened, and what must): what is written now, and what is said to be unmet. */
final class WorkedCompilationsTest extends TestCase
{
    private const WRITES = [
        'question mark damages page' => [['ACC template = {LandingPage}?utm_source=pellworth&utm_term={SearchPhrase}', 'AD1 template = {LandingPage}&utm_source=pellworth&utm_term={SearchPhrase}'], []],
        'click id destroyed in silence' => [['ACC template = {LandingPage}&x-y={MatchedAs}&src=cpc'], []],
        'second mark after ampersand' => [['ACC template = {LandingPage}&foo=1&src=cpc&utm_term={SearchPhrase}'], []],
        'keep doubles what was sent' => [[], ['AD1 kw', 'AD2 utm_source', 'AD2 kw']],
        'omitted key taken from the page' => [['AD1 landing = https://velmar.example/book?utm_content=1&q=2&s=x'], []],
        'encoded query in redirect broken' => [[], ['AD1 utm_id', 'AD1 cmp']],
        'reference to a custom parameter never set' => [['AD1 landing = https://velmar.example/book?src=GRO%7Bterm%7D', 'AD1 template = {LandingPage}&x-y={Screen}'], []],
        'missing question mark left' => [['CAM template = {landing}?partner=9&utm_source=northquay'], []],
    ];

    /** @return iterable<string, array{array<string, mixed>, list<string>, list<string>}> */
    public static function faults(): iterable
    {
        foreach (json_decode((string) file_get_contents(__DIR__.'/data/compile.json'), true) as $case) {
            if (isset(self::WRITES[$case['name']])) {
                yield $case['name'] => [$case['request'], ...self::WRITES[$case['name']]];
            }
        }
    }

    /**
     * @param array<string, mixed> $request
     * @param list<string> $writes
     * @param list<string> $unmet
     */
    #[DataProvider('faults')]
    public function test_does_no_harm(array $request, array $writes, array $unmet): void
    {
        $answer = json_decode((string) json_encode((new Compile(Shipped::all()))->answer(new Cursor($request))->document), true);
        self::assertSame($writes, array_map(static fn (array $w): string => "{$w['node']} {$w['slot']} = {$w['after']}", $answer['writes']));
        self::assertSame($unmet, array_map(static fn (array $u): string => "{$u['node']} {$u['key']}", $answer['unmet']));
    }
}
