<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Plan\AgreedWords;
use Vestigon\Core\Watch\Wrong\Agreed;
use Vestigon\Core\Watch\Wrong\Arrived;
use Vestigon\Core\Watch\Wrong\Fault;
use Vestigon\Core\Watch\Wrong\WhatIsWrong;

/** What arrives otherwise than was agreed on. That these are faults is common practice, with no source. */
final class WhatIsWrongTest extends TestCase
{
    private static function agreed(): Agreed
    {
        $words = [
            'format' => 'vestigon.words/1',
            'keys' => [
                'utm_medium' => [
                    ['word' => 'cpc'],
                    ['word' => 'ppc', 'retired' => ['since' => '2026-10-01', 'use' => 'cpc']],
                ],
            ],
        ];

        return new Agreed(
            ChannelsReader::shipped(),
            array_values(Shipped::all()),
            AgreedWords::read(new Cursor($words)),
            Make::plan(),
            '2026-11-01',
        );
    }

    /** @return array<string, string> `code name value` → reason */
    private static function told(Arrived $arrived): array
    {
        $told = [];
        foreach (WhatIsWrong::in($arrived, self::agreed()) as $fault) {
            $told["{$fault->code} {$fault->name} {$fault->value} {$fault->sessions}"] = $fault->reason;
        }

        return $told;
    }

    /** @return iterable<string, array{array<string, array<string, int>>, array<string, string>}> */
    public static function arrivals(): iterable
    {
        yield 'nothing is wrong' => [
            ['source' => ['northquay' => 9], 'medium' => ['cpc' => 9], 'campaign' => ['summer' => 9, '2026' => 1]],
            [],
        ];
        yield 'a token that nobody has filled, of one platform' => [
            ['campaign' => ['{campaign.name}' => 7, 'summer {sale' => 3]],
            [
                'raw-token campaign {campaign.name} 7' => 'utm_campaign arrives as “{campaign.name}”: nobody has '
                    .'filled {campaign.name}.',
            ],
        ];
        yield 'one that is cut off' => [
            ['campaign' => ['{campaign.id' => 4, '{campaign.i' => 1]],
            [
                'raw-token campaign {campaign.id 4' => 'utm_campaign arrives as “{campaign.id”: nobody has filled '
                    .'{campaign.id.',
            ],
        ];
        yield 'and of another, within a word' => [
            ['content' => ['b-^^banner^^' => 2]],
            ['raw-token content b-^^banner^^ 2' => 'utm_content arrives as “b-^^banner^^”: nobody has filled '
                .'^^banner^^.'],
        ];
        yield 'a word that is none' => [
            ['medium' => ['CPC' => 4, 'qr' => 1]],
            [
                'unknown-word medium CPC 4' => 'utm_medium arrives as “CPC”, which is no word of it: “cpc” is.',
                'unknown-word medium qr 1' => 'utm_medium arrives as “qr”, which is no word of it.',
            ],
        ];
        yield 'a word that is not used any more' => [
            ['medium' => ['ppc' => 4]],
            ['retired-word medium ppc 4' => 'utm_medium arrives as “ppc”, which is not used any more: “cpc” is.'],
        ];
        yield 'spellings that reports count apart: the rarer ones' => [
            ['campaign' => ['Summer Sale' => 3, 'summer_sale' => 40, 'summer-sale' => 2, 'summer' => 9]],
            [
                'split campaign Summer Sale 3' => 'utm_campaign arrives as “Summer Sale” and as “summer_sale”: reports '
                    .'count them apart.',
                'split campaign summer-sale 2' => 'utm_campaign arrives as “summer-sale” and as “summer_sale”: reports '
                    .'count them apart.',
            ],
        ];
        yield 'an address of a person, which is not told again' => [
            ['term' => ['jo@harbour.example' => 2], 'content' => ['call +47 912 34 567' => 1]],
            [
                'personal-data term jo@harbour.example 2' => 'utm_term arrives with an e-mail address in it.',
                'personal-data content call +47 912 34 567 1' => 'utm_content arrives with a phone number in it.',
            ],
        ];
        yield 'a required key without a value' => [
            ['source' => ['' => 5, 'northquay' => 1]],
            ['empty-value source  5' => 'utm_source arrives empty, or not at all.'],
        ];
    }

    /**
     * @param array<string, array<string, int>> $values
     * @param array<string, string> $expected
     */
    #[DataProvider('arrivals')]
    public function test_what_arrives_wrong_is_told(array $values, array $expected): void
    {
        self::assertSame($expected, self::told(new Arrived(true, $values)));
    }

    public function test_what_no_ad_is_known_to_have_sent_may_lack_a_key(): void
    {
        self::assertSame([], self::told(new Arrived(false, ['source' => ['' => 5]])));
    }

    public function test_numbers_new_sources_and_what_no_rule_takes_are_told(): void
    {
        $arrived = new Arrived(
            true,
            ['campaign' => ['7031' => 6, '2026' => 6], 'source' => ['tide' => 12]],
            unmapped: ['tide / (none)' => 12],
            new: ['tide' => 12],
            numbers: ['7031' => 'Deck seats'],
        );
        self::assertSame(
            [
                'number-for-name campaign 7031 6' => 'utm_campaign arrives as “7031”, the number of “Deck seats”: '
                    .'reports show the number.',
                'unmapped channel tide / (none) 12' => '“tide / (none)” is taken by no rule of channels: it is counted '
                    .'as Other.',
                'new-source source tide 12' => 'utm_source arrives as “tide”, which had not arrived before.',
            ],
            self::told($arrived),
        );
    }

    public function test_keys_that_arrive_twice_and_strangers_from_ones_own_hosts_are_told(): void
    {
        $arrived = new Arrived(
            false,
            [],
            doubled: ['source' => 4, 'source,medium' => 2],
            lost: ['book.velmar.example' => 9],
        );
        self::assertSame(
            [
                'doubled-key doubled source 4' => 'utm_source arrives more than once in the same URL: the first counts '
                    .'here, another one elsewhere.',
                'doubled-key doubled source,medium 2' => 'utm_source and utm_medium arrive more than once in the same '
                    .'URL: the first counts here, another one elsewhere.',
                'lost-between-own-hosts lost book.velmar.example 9' => 'Who goes on from book.velmar.example to '
                    .'another host of one’s own arrives there as a stranger: what follows counts for no click.',
            ],
            self::told($arrived),
        );
    }

    public function test_a_name_that_an_element_no_longer_has_is_told(): void
    {
        $arrived = new Arrived(
            true,
            ['campaign' => ['sommer' => 6, 'summer' => 9], 'source' => ['sommer' => 1]],
            former: ['sommer' => 'Summer'],
        );
        self::assertSame(
            ['old-name campaign sommer 6' => 'utm_campaign arrives as “sommer”, by a name that “Summer” no longer has: '
                .'reports tell them apart.'],
            self::told($arrived),
        );
    }

    public function test_of_several_faults_of_a_value_the_gravest_is_told(): void
    {
        $faults = WhatIsWrong::in(
            new Arrived(true, ['medium' => ['{medium}' => 3, 'cpc' => 9, 'CPC' => 4]]),
            self::agreed(),
        );
        $codes = array_map(static fn (Fault $f): string => "{$f->code} {$f->value}", $faults);
        self::assertSame(['raw-token {medium}', 'unknown-word CPC'], $codes);
    }
}
