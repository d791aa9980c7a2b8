<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Channel\Channels;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Channel\RuleLook;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** The expected channels are common practice of the trade, with no single source. */
final class ChannelTest extends TestCase
{
    /** @return iterable<string, array{string, string, string, string}> source, medium, campaign, channel */
    public static function clicks(): iterable
    {
        foreach (
            [
                ['northquay', 'cpc', '', 'Paid search'],
                ['northquay', 'PPC', '', 'Paid search'],
                ['northquay', 'organic', '', 'Unpaid search'],
                ['hearthring', 'cpc', '', 'Paid social'],
                ['hearthring', 'cpa', '', 'Paid social'],
                ['guildloft', 'cpl', '', 'Paid social'],
                ['hearthring', 'retargeting', '', 'Paid social'],
                ['hearthring', 'paid-anything', '', 'Paid social'],
                ['hearthring', 'paid_social', '', 'Paid social'],
                ['hearthring', 'social', '', 'Unpaid social'],
                ['hearthring', 'referral', '', 'Unpaid social'],
                ['mossfeed', 'native', '', 'Native'],
                ['mossfeed', 'cpc', '', 'Native'],
                ['site', 'display', '', 'Display'],
                ['site', 'cpm', '', 'Display'],
                ['northquay', 'cpc', 'summer-listings', 'Paid listings'],
                ['northquay', 'paid-shopping', '', 'Paid listings'],
                ['northquay', 'organic-listing', '', 'Unpaid listings'],
                ['northquay', 'paid-video', '', 'Paid video'],
                ['site', 'video', '', 'Video'],
                ['crm', 'email', '', 'E-mail'],
                ['newsletter', 'link', '', 'E-mail'],
                ['crm', 'e-mail', '', 'E-mail'],
                ['blog', 'affiliate', '', 'Affiliates'],
                ['blog', 'referral', '', 'Referral'],
                ['', '', '', 'Direct'],
                ['(direct)', '(none)', '', 'Direct'],
                ['blog', 'listing-ads-new', '', 'Other'],
                ['blog', 'qr', '', 'Other'],
                ['hearthring', 'cpm', '', 'Paid social'],
                ['hearthring', 'cpc_video', '', 'Paid social'],
                ['northquay', 'search_ads', '', 'Paid search'],
                ['site', 'cpv', '', 'Paid video'],
                ['site', 'story-video', '', 'Video'],
                ['team-social', 'paid_reach', '', 'Paid social'],
                ['northquay', 'Shopping Ads', '', 'Paid listings'],
                ['northquay', 'cpc', 'shopping_summer', 'Paid listings'],
                ['northquay', 'cpc', 'windowshopping', 'Paid search'],
                ['video-portal', 'organic', '', 'Unpaid search'],
                ['site', 'scpm', '', 'Other'],
                ['site', 'paidish', '', 'Other'],
            ] as $row
        ) {
            yield implode(' / ', $row) => $row;
        }
    }

    #[DataProvider('clicks')]
    public function test_the_shipped_rules_count_as_the_trade_does(
        string $source,
        string $medium,
        string $campaign,
        string $channel,
    ): void {
        $counted = ChannelsReader::shipped()->of([
            'utm_source' => $source,
            'utm_medium' => $medium,
            'utm_campaign' => $campaign,
        ]);
        self::assertSame($channel, $counted->channel, $counted->why);
    }

    /** @param list<array<string, mixed>> $rules */
    private static function rules(array $rules): Channels
    {
        return ChannelsReader::read(
            new Cursor([
                'format' => 'vestigon.channels/1',
                'keys' => ['source' => 's', 'medium' => 'm'],
                'rules' => $rules,
                'otherwise' => 'Other',
            ]),
        );
    }

    public function test_the_first_rule_that_takes_a_click_counts_and_says_why(): void
    {
        $channels = self::rules([
            [
                'channel' => 'A',
                'all' => [['key' => 'source', 'equals' => 'x'], ['key' => 'medium', 'in' => ['cpc', 'ppc']]],
            ],
            ['channel' => 'B', 'all' => [['key' => 'medium', 'matches' => '^cp']]],
            [
                'channel' => 'D',
                'all' => [['key' => 'medium', 'begins' => ['Video-'], 'ends' => ['-video', '_video']]],
            ],
            ['channel' => 'C', 'all' => [['key' => 'other_key', 'equals' => '']]],
        ]);
        $why = static fn (array $values): array => [($c = $channels->of($values))->channel, $c->rule, $c->why];

        self::assertSame(['A', 0, 'source is x and medium is one of cpc, ppc'], $why(['s' => 'X', 'm' => 'CPC']));
        self::assertSame(['B', 1, 'medium matches ^cp'], $why(['s' => 'y', 'm' => 'cpc']));
        self::assertSame(
            ['D', 2, 'medium begins with video- or ends with -video, _video'],
            $why(['s' => 'y', 'm' => 'Short-Video']),
        );
        self::assertSame(['C', 3, 'other_key is empty'], $why(['s' => 'y', 'm' => 'z']));
        self::assertSame(
            ['Other', null, 'no rule takes source “y”, medium “z”'],
            $why(['s' => 'y', 'm' => 'z', 'other_key' => '1']),
        );
        self::assertSame(['A', 'B', 'D', 'C', 'Other'], $channels->channels());
    }

    public function test_every_rule_that_was_asked_says_what_held(): void
    {
        $looks = self::rules([
            ['channel' => 'A', 'all' => [['key' => 'source', 'equals' => 'x'], ['key' => 'medium', 'in' => ['cpc']]]],
            ['channel' => 'B', 'all' => [['key' => 'medium', 'begins' => ['cp']]]],
            ['channel' => 'C', 'all' => []],
        ])->looks(['s' => 'y', 'm' => 'cpc']);

        self::assertSame(
            [
                [
                    0,
                    'A',
                    false,
                    [['says' => 'source is x', 'holds' => false], ['says' => 'medium is cpc', 'holds' => true]],
                ],
                [1, 'B', true, [['says' => 'medium begins with cp', 'holds' => true]]],
            ],
            array_map(static fn (RuleLook $l): array => [$l->rule, $l->channel, $l->takes(), $l->tests], $looks),
        );
    }

    public function test_any_bytes_are_counted_somewhere(): void
    {
        mt_srand(4);
        for ($i = 0; $i < 2000; $i++) {
            $channel = ChannelsReader::shipped()->of([
                'utm_source' => substr(random_bytes(9), mt_rand(0, 9)),
                'utm_medium' => substr(random_bytes(9), mt_rand(0, 9)),
            ])->channel;
            self::assertContains($channel, ChannelsReader::shipped()->channels());
        }
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function broken(): iterable
    {
        yield 'no way to test' => [
            ['key' => 'source'],
            'rules[0].all[0]: "equals" or "matches" is wanted, or lists of words: "in", "begins", "ends"',
        ];
        yield 'two ways' => [
            ['key' => 'source', 'equals' => 'a', 'matches' => 'b'],
            'rules[0].all[0]: "equals" or "matches" is wanted, or lists of words: "in", "begins", "ends"',
        ];
        yield 'no expression' => [
            ['key' => 'source', 'matches' => '('],
            'rules[0].all[0].matches: "(" is no regular expression',
        ];
    }

    /** @param array<string, mixed> $test */
    #[DataProvider('broken')]
    public function test_a_broken_rule_is_refused_with_the_place(array $test, string $message): void
    {
        $this->expectExceptionObject(new UnusableInput($message));
        self::rules([['channel' => 'A', 'all' => [$test]]]);
    }
}
