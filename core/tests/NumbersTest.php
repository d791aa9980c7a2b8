<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Numbers\Amounts;
use Vestigon\Core\Numbers\By;
use Vestigon\Core\Numbers\Grouped;
use Vestigon\Core\Numbers\Lookup;
use Vestigon\Core\Numbers\Named;
use Vestigon\Core\Numbers\NamedRow;
use Vestigon\Core\Numbers\NamingColumn;
use Vestigon\Core\Numbers\NamingColumns;

/** Reports of invented elements: which columns name them, what each row is about, what stands together. */
final class NumbersTest extends TestCase
{
    /** @return Lookup of two accounts: in each a campaign 7001 with ads; campaign 2 was renamed */
    private static function lookup(): Lookup
    {
        $all = [
            new Named(1, 'north campaign', '7001', 'Ferry', [10], 'North'),
            new Named(2, 'north campaign', '7002', 'Summer', [10], 'North'),
            new Named(3, 'north ad', '9001', 'Blue', [10, 1], 'North › Ferry'),
            new Named(4, 'north ad', '9002', 'Blue', [10, 2], 'North › Summer'),
            new Named(5, 'south campaign', '7001', 'Island', [20], 'South'),
            new Named(6, 'south ad', '880011223', 'Red', [20, 5], 'South › Island'),
        ];
        $former = [new Named(2, 'north campaign', '7002', 'Summer', [10], 'North', 'Sommer')];

        return new class($all, $former) implements Lookup {
            /**
             * @param list<Named> $all
             * @param list<Named> $former
             */
            public function __construct(private array $all, private array $former) {}

            public function of(By $by, array $cells): array
            {
                $found = [];
                foreach ($cells as $cell) {
                    $is = static fn (Named $n): bool => match ($by) {
                        By::Number => $n->number === $cell,
                        By::Ending => str_ends_with($n->number, $cell),
                        By::Name => ($n->formerly ?? $n->name) === $cell,
                    };
                    $all = $by === By::Name ? [...$this->all, ...$this->former] : $this->all;
                    $some = array_values(array_filter($all, $is));
                    $found += $some === [] ? [] : [$cell => $some];
                }

                return $found;
            }
        };
    }

    /** @return iterable<string, array{list<list<string|int>>, array<int, array{By, string|null, int, int, int}>}> */
    public static function reports(): iterable
    {
        yield 'numbers of one account' => [
            [['9001', 12], ['9002', 40], ['', 52]],
            [0 => [By::Number, 'north ad', 2, 2, 0]],
        ];
        yield 'a number that two accounts have, beside one that only one has' => [
            [['7001', 3], ['7002', 4]],
            [0 => [By::Number, 'north campaign', 2, 2, 0]],
        ];
        yield 'a number that two accounts have, and no other' => [
            [['7001', 3]],
            [0 => [By::Number, null, 1, 1, 1]],
        ];
        yield 'as a spreadsheet keeps numbers as text' => [
            [["'9001", 1], ['  9002 ', 1]],
            [0 => [By::Number, 'north ad', 2, 2, 0]],
        ];
        yield 'names, one of them from before' => [
            [['Sommer', 1], ['Summer', 2], ['Ferry', 3]],
            [0 => [By::Name, 'north campaign', 3, 3, 0]],
        ];
        yield 'half of them known is enough, less is not' => [
            [['9001', 'Ferry'], ['1', 'x'], ['2', 'y']],
            [],
        ];
        yield 'the last digits, where each leaves one alone' => [
            [['1223', 3]],
            [0 => [By::Ending, 'south ad', 1, 1, 0]],
        ];
        yield 'three digits are no end' => [[['223', 3]], []];
    }

    /**
     * @param list<list<string|int>> $rows
     * @param array<int, array{By, string|null, int, int, int}> $expected by place
     */
    #[DataProvider('reports')]
    public function test_columns_that_name_elements_are_found(array $rows, array $expected): void
    {
        $found = [];
        foreach ((new NamingColumns(self::lookup()))->among($rows) as $c) {
            $found[$c->at] = [$c->by, $c->kind, $c->filled, $c->known, $c->several];
        }
        self::assertSame($expected, $found);
    }

    public function test_what_a_person_says_of_a_column_holds(): void
    {
        $columns = new NamingColumns(self::lookup());
        $found = $columns->among([['9001', '7002']], [0 => null, 1 => By::Ending]);
        self::assertSame([[1, By::Ending]], array_map(static fn (NamingColumn $c): array => [$c->at, $c->by], $found));
    }

    public function test_a_row_says_which_of_several_is_meant(): void
    {
        [$campaigns, $ads] = [By::Number, By::Name];
        $lookup = self::lookup();
        $columns = [new NamingColumn(0, $campaigns, null, 2, 2, 1), new NamingColumn(1, $ads, null, 2, 2, 2)];
        $row = static fn (string $campaign, string $ad): NamedRow => NamedRow::of($columns, [
            $lookup->of($campaigns, [$campaign])[$campaign] ?? [],
            $lookup->of($ads, [$ad])[$ad] ?? [],
        ]);
        $ids = static fn (NamedRow $r): array => array_map(
            static fn (array $some): array => array_column($some, 'id'),
            $r->byColumn,
        );

        self::assertSame([[1], [3]], $ids($row('7001', 'Blue')), 'the ad of that campaign, and its account');
        self::assertSame([[2], [4]], $ids($row('7002', 'Blue')));
        self::assertSame([[5], [6]], $ids($row('7001', 'Red')));
        self::assertSame([[1, 5], []], $ids($row('7001', 'nobody’s')), 'nothing says which');
        self::assertNull($row('7001', 'nobody’s')->narrowest());
        self::assertSame(3, $row('7001', 'Blue')->narrowest()?->id);
    }

    /** @return iterable<string, array{list<string>, bool, string|null}> */
    public static function amounts(): iterable
    {
        yield 'whole numbers' => [['1', '2', ''], false, '3'];
        yield 'exact where floats are not' => [['0.1', '0.2'], false, '0.3'];
        yield 'thousands and a point' => [['1,200.50', '3'], false, '1203.50'];
        yield 'thousands and a comma' => [['1.200,50', '3'], false, '1203,50'];
        yield 'a comma that can be either is a thousand among commas' => [['1,200'], false, '1200'];
        yield 'and a decimal sign behind semicolons' => [['1,200'], true, '1,200'];
        yield 'below nothing' => [['-3', '1'], false, '-2'];
        yield 'a share is none' => [['3 %'], false, null];
        yield 'a day is none' => [['2026-10-01'], false, null];
        yield 'nothing is none' => [['', ''], false, null];
    }

    /** @param list<string> $cells */
    #[DataProvider('amounts')]
    public function test_amounts_add_up_exactly(array $cells, bool $isComma, ?string $sum): void
    {
        self::assertSame($sum, Amounts::of(0, $cells, $isComma)?->sum($cells));
    }

    /** Common practice: what was divided by something can't be added up. */
    public function test_what_is_divided_is_not_added_up(): void
    {
        $sums = array_filter(['Clicks', 'Cost', 'Avg. CPC', 'CTR', 'Conv. rate', 'Cost / conv.', 'Impressions', 'Year'],
            Amounts::isSum(...));
        self::assertSame(['Clicks', 'Cost', 'Impressions'], array_values($sums));
    }

    public function test_a_renamed_element_is_one_line_with_the_split_beneath_it(): void
    {
        $column = new NamingColumn(0, By::Name, 'north campaign', 4, 4, 0);
        $cells = [
            ['Sommer', '2026-10', '3', '1.50'],
            ['Ferry', '2026-10', '9', '2.00'],
            ['Summer', '2026-10', '4', '0.25'],
            ['Summer', '2026-11', '5', '0.75'],
            ['nobody’s', '2026-10', '1', '1.00'],
        ];
        $lookup = self::lookup();
        $rows = array_map(
            static fn (array $c): array => [
                NamedRow::of([$column], [$lookup->of(By::Name, [$c[0]])[$c[0]] ?? []]),
                $c,
            ],
            $cells,
        );
        $amounts = [Amounts::of(2, ['3', '9', '4', '5', '1'], false), Amounts::of(3, ['1.50', '2.00'], false)];
        self::assertSame(
            [
                ['cells' => ['Summer', '2026-10', '7', '1.75'], 'of' => [0, 2]],
                ['cells' => null, 'of' => [1]],
                ['cells' => null, 'of' => [3]],
                ['cells' => null, 'of' => [4]],
            ],
            (new Grouped([$column], array_filter($amounts)))->lines($rows),
        );
    }
}
