<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Command\SheetCommand;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\Cells;
use Vestigon\Core\Sheet\CustomForm;
use Vestigon\Core\Sheet\DamagedNumber;
use Vestigon\Core\Sheet\Element;
use Vestigon\Core\Sheet\HeadingRow;
use Vestigon\Core\Sheet\Known;
use Vestigon\Core\Sheet\Outgoing;
use Vestigon\Core\Sheet\OutTable;
use Vestigon\Core\Sheet\SheetMapReader;

/** What sheets say, beside the worked ones: against what is known, on the way out, and bad maps. */
final class SheetTest extends TestCase
{
    private const KNOWN = [
        'format' => 'vestigon.account/1',
        'dialect' => 'northquay-search',
        'settings' => ['clickId' => true],
        'nodes' => [
            ['id' => 'A-1', 'parent' => null, 'level' => 'account', 'name' => 'Velmar'],
            ['id' => '71', 'parent' => 'A-1', 'level' => 'campaign', 'name' => 'Islands', 'type' => 'text'],
            ['id' => '72', 'parent' => 'A-1', 'level' => 'campaign', 'name' => 'Coves'],
            ['id' => '702', 'parent' => '71', 'level' => 'group', 'name' => 'Foot'],
            [
                'id' => '9',
                'parent' => '702',
                'level' => 'ad',
                'name' => 'Deck',
                'slots' => ['landing' => 'https://velmar.example/a', 'suffix' => 'a=1'],
                'custom' => ['season' => 'winter'],
            ],
            ['id' => '10', 'parent' => '702', 'level' => 'ad', 'name' => 'Bar', 'slots' => ['suffix' => 'b=1']],
        ],
    ];

    private const ADS = [
        ['heading' => 'Ad ID', 'means' => 'id'],
        ['heading' => 'Group ID', 'means' => 'group.id'],
        ['heading' => 'Query', 'means' => 'slot.suffix'],
        ['heading' => 'Season', 'means' => 'custom.season'],
    ];

    /**
     * @param list<array<string, mixed>> $columns
     * @param list<list<string|int|float|null>> $rows
     * @param array<string, mixed> $more
     * @return array<string, mixed>
     */
    private static function read(array $columns, array $rows, array $more = []): array
    {
        return (new SheetCommand(Shipped::all()))->answer(
            new Cursor([
                'map' => self::map($columns),
                'dialect' => 'northquay-search',
                'account' => ['id' => 'A-1', 'name' => 'Velmar'],
                'tables' => [['title' => 'ads', 'rows' => $rows]],
                ...$more,
            ]),
        )->document;
    }

    /**
     * @param list<array<string, mixed>> $columns
     * @return array<string, mixed>
     */
    private static function map(array $columns): array
    {
        return [
            'format' => 'vestigon.sheet-map/1',
            'dialect' => 'northquay-search',
            'title' => 'an export',
            'tables' => [['title' => 'ads', 'level' => 'ad', 'columns' => $columns]],
        ];
    }

    /** @return array<string, array<string, mixed>> by id */
    private static function nodes(array $answer): array
    {
        return array_column($answer['account']['nodes'], null, 'id');
    }

    public function test_a_mapped_empty_cell_clears_and_a_missing_column_leaves(): void
    {
        $answer = self::read(self::ADS, [['Ad ID', 'Group ID', 'Query'], ['9', '702', '']], ['known' => self::KNOWN]);

        $ad = self::nodes($answer)['9'];
        self::assertSame(['landing' => 'https://velmar.example/a'], $ad['slots']);
        self::assertSame(['season' => 'winter'], $ad['custom'], 'its column is not there');
        self::assertSame('Deck', $ad['name']);
        self::assertSame(['clickId' => true], $answer['account']['settings']);
        self::assertSame(
            ['rows' => 1, 'totals' => 0, 'new' => 0, 'changed' => 1, 'same' => 1, 'gone' => 0, 'moved' => 0],
            $answer['counts'],
            'the group is named and as it was',
        );
    }

    public function test_the_same_again_changes_nothing_and_says_so(): void
    {
        $rows = [['Ad ID', 'Group ID', 'Query', 'Season'], ['9', '702', 'a=1', 'winter'], ['10', '702', 'b=1', '']];
        $first = self::read(self::ADS, $rows, ['known' => self::KNOWN]);

        self::assertSame(['new' => 0, 'changed' => 0, 'same' => 3], array_slice($first['counts'], 2, 3));
        self::assertEquals(self::KNOWN['nodes'], array_values(self::nodes($first)));
    }

    public function test_what_a_whole_level_does_not_have_is_gone_with_all_below_it(): void
    {
        $rows = [['Ad ID', 'Group ID', 'Query', 'Season'], ['9', '702', 'a=1', 'winter']];

        $ads = self::read(self::ADS, $rows, ['known' => self::KNOWN, 'whole' => ['ad' => true]]);
        self::assertSame('gone', self::nodes($ads)['10']['standing']);
        self::assertSame(1, $ads['counts']['gone']);
        self::assertSame(['suffix' => 'b=1'], self::nodes($ads)['10']['slots'], 'what it said is kept');

        $campaigns = self::read(
            [['heading' => 'Campaign ID', 'means' => 'campaign.id']],
            [['Campaign ID'], ['72']],
            [
                'known' => self::KNOWN,
                'whole' => ['campaign' => true],
                'map' => [
                    ...self::map([]),
                    'tables' => [
                        [
                            'title' => 'campaigns',
                            'level' => 'campaign',
                            'columns' => [['heading' => 'Campaign ID', 'means' => 'campaign.id']],
                        ],
                    ],
                ],
            ],
        );
        self::assertSame(4, $campaigns['counts']['gone'], 'the campaign, its group and both ads');

        $again = self::read(self::ADS, [...$rows, ['10', '702', 'b=1', '']], ['known' => $ads['account']]);
        self::assertArrayNotHasKey('standing', self::nodes($again)['10'], 'it is back');
    }

    public function test_another_group_than_the_known_one_is_a_move(): void
    {
        $columns = [...self::ADS, ['heading' => 'Campaign ID', 'means' => 'campaign.id']];
        $answer = self::read(
            $columns,
            [['Ad ID', 'Group ID', 'Query', 'Season', 'Campaign ID'], ['9', '703', 'a=1', 'winter', '72']],
            ['known' => self::KNOWN],
        );

        self::assertSame('703', self::nodes($answer)['9']['parent']);
        self::assertSame('72', self::nodes($answer)['703']['parent']);
        self::assertSame(['moved'], array_column($answer['problems'], 'code'));
        self::assertSame(1, $answer['counts']['moved']);
    }

    public function test_a_platform_without_campaigns_has_ads_all_the_same(): void
    {
        $document = \Symfony\Component\Yaml\Yaml::parseFile(dirname(__DIR__, 2).'/tests/data/lanternmail.yaml');
        $answer = self::read([], [['No', 'Page'], ['7', 'https://v.example']], [
            'dialect' => $document,
            'map' => [
                'format' => 'vestigon.sheet-map/1',
                'dialect' => 'lanternmail',
                'tables' => [
                    [
                        'title' => 'ads',
                        'level' => 'letter',
                        'columns' => [
                            ['heading' => 'No', 'means' => 'id'],
                            ['heading' => 'Page', 'means' => 'slot.landing'],
                        ],
                    ],
                ],
            ],
        ]);

        self::assertSame([], $answer['problems']);
        self::assertSame('A-1', self::nodes($answer)['7']['parent']);
    }

    public function test_ads_of_one_name_that_differ_leave_what_is_known_as_it_is(): void
    {
        $columns = [
            ['heading' => 'Campaign', 'means' => 'campaign.name'],
            ['heading' => 'Group', 'means' => 'group.name'],
            ['heading' => 'Ad', 'means' => 'name'],
            ['heading' => 'Page', 'means' => 'slot.landing'],
        ];
        $heads = ['Campaign', 'Group', 'Ad', 'Page'];
        $first = self::read($columns, [$heads, ['Isles', 'Foot', 'Deck', 'https://a.example']]);
        $second = self::read(
            $columns,
            [$heads, ['Isles', 'Foot', 'Deck', 'https://b.example'], ['Isles', 'Foot', 'Deck', 'https://c.example']],
            ['known' => $first['account'], 'whole' => ['ad' => true]],
        );

        self::assertEquals($first['account'], $second['account']);
        self::assertSame(['named-alike', 'named-alike'], array_column($second['problems'], 'code'));
        self::assertSame([2, 3], array_column($second['problems'], 'row'));
    }

    public function test_an_element_can_be_put_away_between_two_rows(): void
    {
        foreach (json_decode((string) file_get_contents(__DIR__.'/data/sheets.json'), true) as $case) {
            $dialect = Shipped::dialect($case['request']['dialect']) ?? self::fail('it is shipped');
            foreach (Known::read(new Cursor($case['expect']['account']), $dialect) as $element) {
                $kept = json_decode((string) json_encode($element->toArray()), true);
                self::assertEquals($element, Element::of($kept), $case['name']);
            }
        }
    }

    public function test_a_row_of_another_account_is_left_out(): void
    {
        $columns = [['heading' => 'Account', 'means' => 'account.id'], ...self::ADS];
        $answer = self::read(
            $columns,
            [['Account', 'Ad ID', 'Group ID', 'Query', 'Season'], ['A-2', '9', '702', 'z=1', '']],
            ['known' => self::KNOWN],
        );

        self::assertSame(['other-account'], array_column($answer['problems'], 'code'));
        self::assertEquals(self::KNOWN['nodes'], $answer['account']['nodes']);
    }

    public function test_a_table_without_headings_that_are_known_says_so(): void
    {
        $answer = self::read(self::ADS, [[1, 2], [3, 4]], [
            'tables' => [['title' => 'other', 'rows' => [[1, 2], [3, 4]]]],
        ]);

        self::assertSame(['no-headings'], array_column($answer['problems'], 'code'));
    }

    /** @return iterable<string, array{string|int|float, bool}> */
    public static function numbers(): iterable
    {
        yield 'as it was' => ['120345678901', false];
        yield 'with leading zeros' => ['00702', false];
        yield 'short and round' => ['100000', false];
        yield 'fifteen digits' => ['123456789012345', false];
        yield 'sixteen digits, the last one lost' => ['1234567890123450', true];
        yield 'sixteen digits, all there' => ['1234567890123456', false];
        yield 'a long numeric cell' => [1234567890123456, true];
        yield 'a short numeric cell' => [71, false];
        yield 'written short' => ['1.20345E+11', true];
        yield 'written short with a comma' => ['7,1E+10', true];
        yield 'a name that looks like it' => ['1E5', false];
        yield 'grouped by points' => ['1.234.567', true];
        yield 'grouped by commas' => ['1,234', true];
        yield 'grouped by both' => ['1,234.567', false];
        yield 'a part of nothing' => ['71.0', true];
    }

    #[DataProvider('numbers')]
    public function test_numbers_that_a_spreadsheet_damaged_are_told(string|int|float $cell, bool $isDamaged): void
    {
        self::assertSame($isDamaged, DamagedNumber::is((new Cells())->text($cell), $cell));
    }

    /** @return iterable<string, array{string|int|float|null, string}> */
    public static function cells(): iterable
    {
        yield 'white space, also wide' => ["\u{A0} a b\u{3000}\n", 'a b'];
        yield 'a byte order mark' => ["\u{FEFF}a", 'a'];
        yield 'a dash that stands for nothing' => [' -- ', ''];
        yield 'nothing' => [null, ''];
        yield 'a whole number' => [71, '71'];
        yield 'a whole number with a point' => [71.0, '71'];
        yield 'a part' => [0.5, '0.5'];
        yield 'an apostrophe before a digit' => ["'007", '007'];
        yield 'an apostrophe before a formula' => ["'=1+1", '=1+1'];
        yield 'two of them' => ["''=1+1", "'=1+1"];
        yield 'one that belongs to a word' => ["'s", "'s"];
    }

    #[DataProvider('cells')]
    public function test_cells_are_read_as_what_was_meant(string|int|float|null $cell, string $text): void
    {
        self::assertSame($text, (new Cells())->text($cell));
    }

    /** What spreadsheets take for formulas: OWASP, "CSV Injection" (from memory). */
    public function test_no_cell_that_goes_out_is_a_formula(): void
    {
        foreach (['=cmd()', '+1', '-1', '@x', "\t=1", "\r=1", "'=1"] as $text) {
            self::assertMatchesRegularExpression("/^'/", Cells::harmless($text));
        }
        self::assertSame('a=1', Cells::harmless('a=1'));
    }

    public function test_custom_parameters_in_one_cell(): void
    {
        $form = new CustomForm(';', '=', '{my.', '}');

        self::assertSame(['a' => '1', 'b' => 'x=y'], $form->parameters('{my.a}=1;{my.b} = x=y;'));
        self::assertSame([], $form->parameters(''));
        self::assertNull($form->parameters('a=1'), 'without its marks it is no name');
        self::assertNull($form->parameters('{my.a}'), 'a name alone says nothing');
        self::assertSame('{my.a}=1; {my.b}=2', $form->cell(['a' => '1', 'b' => '2']));
        self::assertFalse($form->holds('a', 'x;y'));
    }

    public function test_the_heading_row_is_the_one_that_knows_the_most(): void
    {
        $map = SheetMapReader::read(new Cursor(self::map(self::ADS)), Make::northquay())->tables[0];

        $rows = [['Query of the day'], [], ['ad id', 'GROUP  ID', 'x'], ['1', '2', '3']];
        self::assertSame(2, HeadingRow::at($rows, $map));
        $rows = [['Report'], ['What', 'Who'], ['1', '2']];
        self::assertSame(1, HeadingRow::at($rows, null), 'without a map, the most text');
        self::assertNull(HeadingRow::at([], $map));
    }

    public function test_a_text_without_a_column_is_told_before_anything_goes_out(): void
    {
        $sheet = SheetMapReader::read(new Cursor(self::map(self::ADS)), Make::northquay());
        $heads = ['Ad ID', 'Group ID', 'Query', 'Season'];
        $out = new Outgoing([new OutTable('ads', $heads, $sheet, $sheet->tables[0], Make::northquay(), 'A-1')]);

        self::assertTrue($out->place(Write::slot('9', SlotKind::Suffix, null, 'x=1'), 'ad'));
        self::assertTrue($out->place(Write::custom('9', 'season', null, 'x'), 'ad'));
        self::assertFalse($out->place(Write::slot('9', SlotKind::Template, null, 'x'), 'ad'), 'no column');
        self::assertFalse($out->place(Write::slot('702', SlotKind::Suffix, null, 'x'), 'group'), 'no rows');
        self::assertSame([0 => ['Ad ID', 'Query', 'Season']], $out->headings(), 'what tells a row, and what changes');
    }

    public function test_values_are_turned_back(): void
    {
        $columns = [
            ['heading' => 'Ad', 'means' => 'id'],
            ['heading' => 'Kind', 'means' => 'campaign.type', 'values' => ['Words' => 'text', '*' => 'video']],
            ['heading' => 'Query', 'means' => 'slot.suffix'],
        ];
        $sheet = SheetMapReader::read(new Cursor(self::map($columns)), Make::northquay());
        $account = Make::account([['71', 'acc', 'campaign', 'Isles', 'text'], ['9', '71', 'ad', 'Deck', '']]);
        $out = new Outgoing(
            [new OutTable('ads', ['Ad', 'Kind', 'Query'], $sheet, $sheet->tables[0], Make::northquay(), 'acc')],
            all: true,
        );
        $write = Write::slot('9', SlotKind::Suffix, null, '=x');
        $out->place($write, 'ad');

        self::assertSame(
            [0 => ['9', 'Words', '=x']],
            $out->rows('9', Write::applied($account, [$write])->pathTo('9')),
        );
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function badMaps(): iterable
    {
        $map = self::map(self::ADS);
        $column = static fn (array $c): array => [...$map, 'tables' => [['level' => 'ad', 'columns' => [$c]]]];
        yield 'another format' => [[...$map, 'format' => 'x'], 'format: "vestigon.sheet-map/1" is wanted'];
        yield 'another platform' => [[...$map, 'dialect' => 'guildloft'], 'dialect: this map is for guildloft'];
        yield 'no table' => [[...$map, 'tables' => []], 'tables: at least one'];
        yield 'no such level' => [
            [...$map, 'tables' => [['level' => 'banner', 'columns' => self::ADS]]],
            'tables[0].level: "banner" is no level of Northquay Search',
        ];
        yield 'no such meaning' => [
            $column(['heading' => 'x', 'means' => 'slot.tail']),
            'tables[0].columns[0].means: "slot.tail" is nothing',
        ];
        yield 'no heading' => [$column(['heading' => '', 'means' => 'id']), 'tables[0].columns[0].heading'];
        yield 'a form without its marks' => [
            $column(['heading' => 'x', 'means' => 'custom', 'form' => ['pair' => '', 'is' => '=']]),
            'tables[0].columns[0].form.pair',
        ];
        yield 'a decimal mark that is none' => [[...$map, 'decimal' => "'"], 'decimal'];
    }

    /** @param array<string, mixed> $map */
    #[DataProvider('badMaps')]
    public function test_a_bad_map_says_where_it_is_bad(array $map, string $says): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches('~^'.preg_quote($says, '~').'~');

        SheetMapReader::read(new Cursor($map), Make::northquay());
    }
}
