<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Learn\Condition;
use Vestigon\Core\Learn\Placeholder;
use Vestigon\Core\Learn\Placeholders;
use Vestigon\Core\Template\TemplateReader;

/** A platform's help becomes its catalogue. The texts are made up; that help reads like this is common practice. */
final class PlaceholdersTest extends TestCase
{
    private const TABLE = <<<'TEXT'
        Macro	What it is replaced by	Example
        [[CampaignNo]]	The number of the campaign	8812
        [[campaign]]	Campaign title as shown in the desk	Winter
        [[AdNo]]	Ad identifier	71
        [[term]]	The keyword that matched	ferry
        [[how]]	How it matched: match type of the keyword	e
        [[where]]	Publisher name	Gazette
        [[lp]]	The landing page, URL-encoded	https%3A%2F%2Fa
        [[lpraw]]	The landing page, not encoded	https://a
        [[cb]]	A random number against caches	93
        [[extra]]	Reserved	
        TEXT;

    /** @return array<string, array{string|null, bool}> */
    private static function fields(Placeholders $read): array
    {
        $fields = [];
        foreach ($read->items as $item) {
            $fields[$item->name] = [
                $item->kind === TokenKind::Landing ? "landing {$item->encode}" : $item->field,
                $item->isSure,
            ];
        }

        return $fields;
    }

    public function test_a_table_out_of_a_help_page(): void
    {
        $read = Placeholders::in(self::TABLE);
        self::assertSame(['[[', ']]', true], [$read->open, $read->close, $read->isSure]);
        self::assertSame(
            [
                'CampaignNo' => ['campaign.id', true],
                'campaign' => ['campaign.name', true],
                'AdNo' => ['ad.id', true],
                'term' => ['keyword.text', true],
                'how' => ['keyword.match', false],
                'where' => ['publisher.name', true],
                'lp' => ['landing 1', true],
                'lpraw' => ['landing 0', true],
                'cb' => ['click.random', true],
                'extra' => [null, false],
            ],
            self::fields($read),
        );
        self::assertSame('The number of the campaign 8812', $read->items[0]->says);
    }

    public function test_help_as_running_text(): void
    {
        $read = Placeholders::in(
            "You can use %campaign_id% for the campaign's ID.\nIn addition (new!) %device% tells the device type, "
                .'and %clickid% is a unique click id. See "Settings". The name of the ad group is %group%.',
        );
        self::assertSame(['%', '%'], [$read->open, $read->close]);
        self::assertSame(
            ['campaign_id' => 'campaign.id', 'device' => 'device', 'clickid' => 'click.id', 'group' => 'group.name'],
            array_map(static fn (array $f): ?string => $f[0], self::fields($read)),
        );
        self::assertFalse($read->items[3]->isSure, 'a level alone may be its name or its number');
    }

    public function test_a_list_without_marks_asks_for_them(): void
    {
        $read = Placeholders::in("name | meaning\ncampaign_id | id of the campaign\nad_name | name of the ad");
        self::assertSame('', $read->open);
        self::assertSame(
            ['name' => [null, false], 'campaign_id' => ['campaign.id', true], 'ad_name' => ['ad.name', true]],
            self::fields($read),
        );
    }

    public function test_a_text_under_a_condition_is_asked_about(): void
    {
        $read = Placeholders::in("{campaignid} – campaign id\n{if-phone:text} – text for phones\n{ad} – ad name\n");
        $phones = $read->items[1];
        self::assertSame(
            [TokenKind::When, 'device', ['mobile'], true],
            [$phones->kind, $phones->field, $phones->is, $phones->isSure],
        );
    }

    /** @return iterable<array{string, string|null, list<string>}> words, field, values (common practice, no source) */
    public static function conditions(): iterable
    {
        yield ['phone-only', 'device', ['mobile']];
        yield ['the text, if the click is made on a computer or a tablet', 'device', ['desktop', 'tablet']];
        yield ['when the device is not a phone', 'device', ['desktop', 'tablet']];
        yield ['search-only', 'network', ['search']];
        yield ['on search and partner sites', 'network', ['search', 'partner']];
        yield ['shown on websites of the display network', 'network', ['display']];
        yield ['for exact matches', 'keyword.match', ['exact']];
        yield ['when the moon is full', null, []];
    }

    /** @param list<string> $is */
    #[DataProvider('conditions')]
    public function test_conditions_are_read(string $words, ?string $field, array $is): void
    {
        $condition = Condition::in($words);

        self::assertSame([$field, $is], [$condition?->field, $condition->is ?? []]);
    }

    public function test_a_condition_that_its_words_disagree_about_is_asked_about(): void
    {
        $help = "{a} – ad name\n{phone-only:text} – text on tablets\n{odd-if:text} – text at full moon\n";
        $read = Placeholders::in($help);

        self::assertSame([false, false], [$read->items[1]->isSure, $read->items[2]->isSure]);
        self::assertNull($read->items[2]->field);
    }

    /** @return iterable<string, array{string}> */
    public static function oddTexts(): iterable
    {
        yield 'nothing' => [''];
        yield 'no UTF-8' => ["{a\xff} \xfe campaign id {b} \xff"];
        yield 'marks only' => [str_repeat('{{[[%%', 5000)];
        yield 'one long word' => ['{'.str_repeat('a', 100_000).'}'];
        yield 'many' => [implode("\n", array_map(static fn (int $i): string => "{t{$i}} campaign id", range(1, 9000)))];
    }

    #[DataProvider('oddTexts')]
    public function test_any_text_is_answered(string $text): void
    {
        $read = Placeholders::in($text);
        self::assertLessThanOrEqual(Placeholders::MOST, count($read->items));
        self::assertJson((string) json_encode(array_map(
            static fn (Placeholder $p): array => $p->toArray(),
            $read->items,
        )));
    }

    /** A help page written from a shipped platform's catalogue gives that platform's marks and fields back. */
    public function test_what_is_told_of_a_shipped_platform_is_read_as_that_platform(): void
    {
        $words = [
            'campaign.id' => 'id of the campaign',
            'campaign.name' => 'name of the campaign',
            'group.id' => 'id of the ad group',
            'group.name' => 'name of the ad group',
            'ad.id' => 'id of the ad',
            'ad.name' => 'name of the ad',
            'keyword.text' => 'the keyword',
            'keyword.match' => 'the match type',
            'publisher.name' => 'name of the publisher',
            'publisher.id' => 'publisher id',
        ];
        $checked = 0;
        foreach (Shipped::all() as $id => $dialect) {
            $told = array_filter($dialect->tokens, static fn ($t): bool => isset($words[$t->field]));
            if ($dialect->syntax === null || count($told) < 3) {
                continue;
            }
            $help = '';
            foreach ($told as $token) {
                $help .= $dialect->written($token->name)."\t{$words[$token->field]}\n";
            }
            $read = Placeholders::in($help);
            self::assertSame([$dialect->syntax->open, $dialect->syntax->close], [$read->open, $read->close], $id);
            $byName = self::fields($read);
            foreach ($told as $token) {
                self::assertSame($token->field, $byName[$token->name][0] ?? null, "{$id} {$token->name}");
                $checked++;
            }
            self::assertNotSame([], (new TemplateReader($dialect))->read($help)->parts);
        }
        self::assertGreaterThan(20, $checked);
    }
}
