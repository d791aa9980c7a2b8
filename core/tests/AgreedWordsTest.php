<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Plan\AgreedWords;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Plan\WordStanding;

/** Words that people have agreed on: which are allowed, on which day, and which one is meant. */
final class AgreedWordsTest extends TestCase
{
    private const WORDS = [
        'format' => 'vestigon.words/1',
        'keys' => [
            'utm_medium' => [
                ['word' => 'cpc', 'means' => 'paid by the click'],
                ['word' => 'paid-social'],
                ['word' => 'ppc', 'retired' => ['since' => '2026-10-01', 'use' => 'cpc']],
                ['word' => 'clicks', 'retired' => ['since' => '2026-01-01', 'use' => 'ppc']],
                ['word' => 'banner', 'retired' => ['since' => '2026-01-01']],
                ['word' => 'straße_nord'],
            ],
        ],
    ];

    /** @return iterable<string, array{string, string, WordStanding, string|null}> value, day, standing, word to use */
    public static function words(): iterable
    {
        yield 'a word' => ['cpc', '2026-11-01', WordStanding::Allowed, null];
        yield 'a retired word' => ['ppc', '2026-11-01', WordStanding::Retired, 'cpc'];
        yield 'on the day itself' => ['ppc', '2026-10-01', WordStanding::Retired, 'cpc'];
        yield 'the day before' => ['ppc', '2026-09-30', WordStanding::Allowed, null];
        yield 'replaced twice' => ['clicks', '2026-11-01', WordStanding::Retired, 'cpc'];
        yield 'replaced twice, once so far' => ['clicks', '2026-02-01', WordStanding::Retired, 'ppc'];
        yield 'retired for nothing' => ['banner', '2026-11-01', WordStanding::Retired, null];
        yield 'capitals' => ['CPC', '2026-11-01', WordStanding::Unknown, 'cpc'];
        yield 'a space' => ['paid social', '2026-11-01', WordStanding::Unknown, 'paid-social'];
        yield 'encoded' => ['Paid%20Social', '2026-11-01', WordStanding::Unknown, 'paid-social'];
        yield 'a plus and an underscore' => ['paid_+social', '2026-11-01', WordStanding::Unknown, 'paid-social'];
        // Unicode's CaseFolding.txt: 00DF folds to ss; what PHP's own tables carry
        yield 'folded as Unicode does' => ['STRASSE-NORD', '2026-11-01', WordStanding::Unknown, 'straße_nord'];
        yield 'a slip' => ['paid-socail', '2026-11-01', WordStanding::Unknown, 'paid-social'];
        yield 'nothing like it' => ['qr', '2026-11-01', WordStanding::Unknown, null];
    }

    #[DataProvider('words')]
    public function test_words_are_judged_by_their_day(
        string $value,
        string $day,
        WordStanding $standing,
        ?string $use,
    ): void {
        $judged = AgreedWords::read(new Cursor(self::WORDS))->of('utm_medium', $day)->judged($value);

        self::assertSame([$standing, $use], [$judged->standing, $judged->use]);
    }

    public function test_a_key_without_words_allows_all(): void
    {
        $words = AgreedWords::read(new Cursor(self::WORDS));

        self::assertSame(WordStanding::Allowed, $words->of('utm_term', null)->judged('Anything')->standing);
    }

    public function test_a_plan_s_own_list_goes_before(): void
    {
        $plan = PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => 'optional',
                'parameters' => [
                    ['key' => 'utm_medium', 'parts' => [['text' => 'cpc']]],
                    ['key' => 'utm_source', 'parts' => [['text' => 'x']], 'vocabulary' => ['x']],
                ],
            ]),
        );
        $keys = self::WORDS['keys'] + ['utm_source' => [['word' => 'y']]];
        $words = AgreedWords::read(new Cursor(['keys' => $keys] + self::WORDS));
        [$medium, $source] = $words->in($plan, '2026-11-01')->parameters;

        self::assertSame(['cpc', 'paid-social', 'straße_nord'], $medium->vocabulary->inUse());
        self::assertSame(['x'], $source->vocabulary->inUse());
    }

    /** @return iterable<string, array{list<array<string, mixed>>, string}> */
    public static function bad(): iterable
    {
        yield 'twice' => [[['word' => 'a'], ['word' => 'a']], 'keys.k[1].word: "a" is there twice'];
        yield 'no day' => [
            [['word' => 'a', 'retired' => ['since' => '1 October']]],
            'keys.k[0].retired.since: a day is wanted, like 2026-11-26',
        ];
        yield 'a day that is none' => [
            [['word' => 'a', 'retired' => ['since' => '2026-02-30']]],
            'keys.k[0].retired.since: a day is wanted, like 2026-11-26',
        ];
        yield 'no such successor' => [
            [['word' => 'a', 'retired' => ['since' => '2026-02-03', 'use' => 'b']]],
            'keys.k[0].retired.use: "b" is no word of k',
        ];
        yield 'an empty word' => [[['word' => '']], 'keys.k[0].word'];
    }

    /** @param list<array<string, mixed>> $words */
    #[DataProvider('bad')]
    public function test_bad_words_say_where(array $words, string $says): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage($says);
        AgreedWords::read(new Cursor(['format' => 'vestigon.words/1', 'keys' => ['k' => $words]]));
    }
}
