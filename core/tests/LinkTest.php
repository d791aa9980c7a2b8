<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Link\Inspection;
use Vestigon\Core\Link\Link;
use Vestigon\Core\Link\Sight;
use Vestigon\Core\Plan\AgreedWords;

/** Links that people place: how they are put together, when two are the same, and each rule by a worked example. */
final class LinkTest extends TestCase
{
    private const GOOD = ['utm_source' => 'harbour-notes', 'utm_medium' => 'email', 'utm_campaign' => 'spring'];

    public function test_pairs_take_the_place_of_those_that_the_page_has_and_stand_before_the_fragment(): void
    {
        $link = new Link('https://velmar.example/t?utm_source=old&lang=en#times', [
            ...self::GOOD,
            'utm_content' => '',
            'utm_term' => 'day & night',
        ]);
        self::assertSame(
            'https://velmar.example/t?utm_source=harbour-notes&lang=en'.
                '&utm_medium=email&utm_campaign=spring&utm_term=day%20%26%20night#times',
            $link->url(),
        );
        self::assertSame(
            [
                ['https://velmar.example/t', false],
                ['?utm_source=harbour-notes', true],
                ['&lang=en', false],
                ['&utm_medium=email&utm_campaign=spring&utm_term=day%20%26%20night', true],
                ['#times', false],
            ],
            $link->stretches(),
        );
    }

    public function test_links_are_the_same_whatever_the_order_of_their_pairs(): void
    {
        $link = new Link('https://velmar.example/', self::GOOD);
        self::assertSame(
            $link->sameness(),
            (new Link('https://velmar.example/', array_reverse(self::GOOD) + ['utm_term' => '']))->sameness(),
        );
        self::assertNotSame($link->sameness(), (new Link('https://velmar.example', self::GOOD))->sameness());
        self::assertNotSame(
            $link->sameness(),
            (new Link('https://velmar.example/', ['utm_campaign' => 'Spring'] + self::GOOD))->sameness(),
        );
    }

    /** @return iterable<string, array{string, array<string, string>, list<string>}> */
    public static function links(): iterable
    {
        $page = 'https://velmar.example/';
        yield 'nothing wrong' => [$page, self::GOOD, []];
        yield 'a script' => ['javascript:alert(1)', self::GOOD, ['not-http']];
        yield 'no host' => ['https:///t', self::GOOD, ['not-http']];
        yield 'a sign-in in it' => ['https://velmar.example@elsewhere.example/', self::GOOD, ['not-http']];
        yield 'what can’t be seen' => ["https://velmar.example/a\x01b", self::GOOD, ['not-http']];
        yield 'white space' => ['https://velmar.example/a b', self::GOOD, ['not-http']];
        yield 'a circle' => ['https://go.velmar.example/s/abc', self::GOOD, ['own-short-address']];
        yield 'too long' => [$page.str_repeat('a', 100_000), self::GOOD, ['too-long']];
        yield 'a key twice' => ["{$page}?a=1&a=2", self::GOOD, ['duplicate-key']];
        yield 'a list of a page' => ["{$page}?a[]=1&a[]=2", self::GOOD, []];
        yield 'a person' => [$page, self::GOOD + ['to' => 'mara@saltmarsh.example'], ['personal-data']];
        yield 'a token' => [$page, ['utm_campaign' => 'x-{keyword}'] + self::GOOD, ['raw-token']];
        yield 'a word of none' => [$page, ['utm_source' => 'harbournotes2'] + self::GOOD, ['unknown-word']];
        yield 'a word of before' => [$page, ['utm_source' => 'notes'] + self::GOOD, ['retired-word']];
        yield 'capitals' => [$page, ['utm_campaign' => 'Spring'] + self::GOOD, ['not-lowercase']];
        yield 'white space in a value' => [$page, ['utm_campaign' => 'in spring'] + self::GOOD, ['space-in-value']];
        yield 'nobody' => [$page, ['utm_campaign' => 'spring'], ['no-source']];
        yield 'counted nowhere' => [$page, ['utm_medium' => 'pigeon'] + self::GOOD, ['unmapped']];
    }

    /**
     * @param array<string, string> $pairs
     * @param list<string> $codes
     */
    #[DataProvider('links')]
    public function test_each_rule_finds_what_it_is_for(string $landing, array $pairs, array $codes): void
    {
        $found = self::findings($landing, $pairs);
        self::assertSame($codes, array_map(static fn (Finding $f): string => $f->code, $found));
        self::assertSame(
            array_intersect($codes, ['not-http', 'own-short-address', 'too-long']) === [],
            Inspection::allows($found),
        );
    }

    public function test_a_word_is_named_that_mends_it(): void
    {
        $fix = static fn (array $pairs): ?string => self::findings('https://velmar.example/', $pairs + self::GOOD)[0]
            ->fix?->text;
        self::assertSame('harbour-notes', $fix(['utm_source' => 'Harbour Notes']));
        self::assertSame('harbour-notes', $fix(['utm_source' => 'notes']));
        self::assertSame('in_spring', $fix(['utm_campaign' => 'in spring']));
    }

    /**
     * @param array<string, string> $pairs
     * @return list<Finding>
     */
    private static function findings(string $landing, array $pairs): array
    {
        $words = AgreedWords::read(
            new Cursor([
                'format' => 'vestigon.words/1',
                'keys' => [
                    'utm_source' => [
                        ['word' => 'harbour-notes'],
                        ['word' => 'notes', 'retired' => ['since' => '2026-01-01', 'use' => 'harbour-notes']],
                    ],
                ],
            ]),
        );

        return Inspection::all(array_values(Shipped::all()))->of(
            new Sight(
                new Link($landing, $pairs),
                ChannelsReader::shipped(),
                $words,
                '2026-11-27',
                ['go.velmar.example'],
            ),
        );
    }
}
