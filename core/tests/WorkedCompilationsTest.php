<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Command\CheckCommand;
use Vestigon\Core\Command\CompileCommand;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;

/**
 * Faults that were seen (data/compile.json has the requests, what happened, and what must): what is written now, and
 * what is said to be unmet.
 */
final class WorkedCompilationsTest extends TestCase
{
    private const WRITES = [
        'question mark damages page' => [
            [
                'ACC template = {LandingPage}?utm_source=pellworth&utm_term={SearchPhrase}',
                'AD1 template = {LandingPage}&utm_source=pellworth&utm_term={SearchPhrase}',
            ],
            [],
        ],
        'click id destroyed in silence' => [['ACC template = {LandingPage}&x-y={MatchedAs}&src=cpc'], []],
        'second mark after ampersand' => [
            ['ACC template = {LandingPage}&foo=1&src=cpc&utm_term={SearchPhrase}'],
            [],
        ],
        'keep doubles what was sent' => [['CAM suffix = kw=northquay'], ['AD2 utm_source']],
        'omitted key taken from the page' => [
            ['AD1 landing = https://velmar.example/book?utm_content=1&q=2&s=x'],
            [],
        ],
        'encoded query in redirect broken' => [
            [
                'GRO template = '
                .'https://go.hopgate.example/r?to={LandingPageEncoded}%3Ffoo%3D1%26utm_id%3Dcpc%26cmp%3Dx',
            ],
            [],
        ],
        'reference to a custom parameter never set' => [
            [
                'AD1 landing = https://velmar.example/book?src=GRO%7Bterm%7D',
                'AD1 template = {LandingPage}&x-y={Screen}',
            ],
            [],
        ],
        'missing question mark left' => [['CAM template = {landing}?partner=9&utm_source=northquay'], []],
        'own text is an error in check' => [['D1 ad_market_as_is = de', 'A suffix = m={my.ad_market_as_is}'], []],
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
        $answer = json_decode(
            (string) json_encode((new CompileCommand(Shipped::all()))->answer(new Cursor($request))->document),
            true,
        );
        self::assertSame(
            $writes,
            array_map(
                static fn (array $w): string => "{$w['node']} "
                    .($w['slot'] ?? $w['custom'])
                    ." = {$w['after']}",
                $answer['writes'],
            ),
        );
        self::assertSame(
            $unmet,
            array_map(static fn (array $u): string => "{$u['node']} {$u['key']}", $answer['unmet']),
        );
    }

    public function test_check_finds_no_error_in_what_was_compiled(): void
    {
        $request = self::request('own text is an error in check');
        foreach (
            json_decode(
                (string) json_encode(
                    (new CompileCommand(Shipped::all()))->answer(new Cursor($request))->document,
                ),
                true,
            )['writes'] as $w
        ) {
            foreach ($request['account']['nodes'] as &$node) {
                if ($node['id'] === $w['node']) {
                    isset($w['slot'])
                        ? ($node['slots'][$w['slot']] = $w['after'])
                        : ($node['custom'][$w['custom']] = $w['after']);
                }
            }
            unset($node);
        }
        $answer = (new CheckCommand(Shipped::all()))->answer(new Cursor($request));

        self::assertFalse($answer->isBad, json_encode($answer->document) ?: '');
        self::assertTrue($answer->document['proven']);
    }

    public function test_a_vocabulary_is_held_against_what_names_send(): void
    {
        $findings = (new CheckCommand(Shipped::all()))->answer(
            new Cursor(self::request('vocabulary of a field not checked')),
        )->document['findings'];
        $found = array_values(
            array_filter($findings, static fn (array $f): bool => $f['code'] === 'not-in-vocabulary'),
        );

        self::assertSame(
            [['C', 'utm_campaign', '“Nope” is not among the words for utm_campaign (spring, summer).', 1]],
            array_map(static fn (array $f): array => [$f['node'], $f['key'], $f['reason'], $f['count']], $found),
        );
    }

    /** @return array<string, mixed> */
    private static function request(string $name): array
    {
        foreach (json_decode((string) file_get_contents(__DIR__.'/data/compile.json'), true) as $case) {
            if ($case['name'] === $name) {
                return $case['request'];
            }
        }
        self::fail("there is no case “{$name}”");
    }
}
