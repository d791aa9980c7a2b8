<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Plan\PartText;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\PlanDifference;
use Vestigon\Core\Plan\PlanDifferences;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Plan\PlanSheet;

/** Plans as tables, and what two of them say differently. */
final class PlanSheetTest extends TestCase
{
    private const PARAMETERS = [
        [
            'key' => 'utm_source',
            'parts' => [['text' => 'northquay']],
            'required' => true,
            'platforms' => ['mossfeed' => ['parts' => [['text' => 'moss']]], 'oldgate-portal' => ['omit' => true]],
        ],
        [
            'key' => 'utm_term',
            'parts' => [['field' => 'keyword.text'], ['text' => '-'], ['field' => 'ad.id']],
            'fallback' => [[['field' => 'product.id']], [['text' => 'none']]],
            'shape' => 'slug',
            'families' => ['search'],
        ],
    ];

    /** @param list<array<string, mixed>> $parameters */
    private static function plan(array $parameters = self::PARAMETERS, string $clickId = 'required'): Plan
    {
        return PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => $clickId,
                'parameters' => $parameters,
            ]),
        );
    }

    public function test_a_plan_goes_out_as_a_table_and_comes_in_the_same(): void
    {
        $rows = PlanSheet::rows(self::plan(), ['mossfeed', 'hearthring']);

        self::assertSame(
            [
                ['key', 'says', 'or', 'as a name', 'required', 'mossfeed', 'hearthring', 'oldgate-portal'],
                ['utm_source', 'northquay', '', '', 'yes', 'moss', '', 'left out'],
                ['utm_term', '‹keyword.text›-‹ad.id›', '‹product.id› | none', 'yes', '', '', '', ''],
            ],
            $rows,
        );
        $back = PlanSheet::document($rows, ['parameters' => self::PARAMETERS]);
        self::assertEquals(self::PARAMETERS, $back['parameters']);
    }

    /** @return array<string, mixed> a document with a variant for a market */
    private static function varied(string $source = 'reef'): array
    {
        return [
            'format' => 'vestigon.plan/1',
            'id' => 'p',
            'title' => 'P',
            'clickId' => 'required',
            'parameters' => self::PARAMETERS,
            'variants' => [
                [
                    'id' => 'nl',
                    'title' => 'The Dutch',
                    'for' => [
                        'types' => ['text'],
                        'where' => [['field' => 'campaign.part.market', 'is' => ['nl', 'be']]],
                    ],
                    'parameters' => [
                        ['key' => 'utm_source', 'parts' => [['text' => $source]], 'families' => ['search']],
                    ],
                ],
            ],
        ];
    }

    public function test_variants_have_their_rows_under_their_titles(): void
    {
        $document = self::varied();
        $rows = PlanSheet::rows(PlanReader::read(new Cursor($document)), []);

        $headings = ['key', 'says', 'or', 'as a name', 'required', 'under', 'mossfeed', 'oldgate-portal'];
        self::assertSame($headings, $rows[0]);
        self::assertSame(['utm_source', 'reef', '', '', '', 'The Dutch', '', ''], $rows[3]);
        self::assertEquals($document, PlanSheet::document($rows, $document));

        $rows[3][1] = 'shoal';
        self::assertEquals(self::varied('shoal'), PlanSheet::document($rows, $document));
        $rows[3][5] = 'The French';
        $this->expectExceptionMessage('the plan has no variant “The French”');
        PlanSheet::document($rows, $document);
    }

    public function test_what_a_variant_says_otherwise_is_told_under_its_title(): void
    {
        $read = static fn (array $document): Plan => PlanReader::read(new Cursor($document));
        $without = $read(['variants' => []] + self::varied());
        $told = static fn (Plan $a, Plan $b): array => array_map(
            static fn (PlanDifference $d): array => [$d->variant, $d->key, $d->place, $d->before, $d->after],
            PlanDifferences::between($a, $b),
        );

        self::assertSame(
            [['The Dutch', 'utm_source', 'says', 'reef', 'shoal']],
            $told($read(self::varied()), $read(self::varied('shoal'))),
        );
        self::assertSame(
            ['The Dutch', null, 'for', null, 'campaign type is text, campaign.part.market is nl or be'],
            $told($without, $read(self::varied()))[0],
        );
        self::assertSame(
            ['The Dutch', 'utm_source', 'says', 'reef', 'northquay'],
            $told($read(self::varied()), $without)[2],
        );
    }

    public function test_random_plans_go_out_and_come_in_the_same(): void
    {
        mt_srand(17);
        for ($i = 0; $i < 200; $i++) {
            $dialect = array_values(Shipped::all())[$i % 8];
            $plan = RandomAccounts::plan($dialect);
            $back = PlanSheet::document(PlanSheet::rows($plan, []), ['parameters' => []])['parameters'];
            self::assertSame(
                [],
                array_filter(
                    PlanDifferences::between(
                        $plan,
                        self::plan($back, $plan->clickIdRequired ? 'required' : 'optional'),
                    ),
                    static fn (PlanDifference $d): bool => ! str_starts_with($d->place, 'channel')
                        && $d->place !== 'families',
                ),
            );
        }
    }

    public function test_a_table_without_its_columns_says_so(): void
    {
        $this->expectExceptionObject(new UnusableInput('the sheet has no column “says”'));
        PlanSheet::document([['key', 'text'], ['a', 'b']], ['parameters' => []]);
    }

    /** @return iterable<string, array{string, list<array<string, string>>}> */
    public static function lines(): iterable
    {
        yield 'text' => ['cpc', [['text' => 'cpc']]];
        yield 'nothing' => ['', [['text' => '']]];
        yield 'a field' => ['<ad.id>', [['field' => 'ad.id']]];
        yield 'both' => ['a‹ad.id›b', [['text' => 'a'], ['field' => 'ad.id'], ['text' => 'b']]];
        yield 'an angle alone' => ['a<b', [['text' => 'a<b']]];
    }

    /** @param list<array<string, string>> $parts */
    #[DataProvider('lines')]
    public function test_parts_are_typed_as_lines(string $line, array $parts): void
    {
        self::assertSame($parts, PartText::read($line));
    }

    public function test_differences_are_told_cell_by_cell(): void
    {
        $then = self::PARAMETERS;
        $then[0]['parts'] = [['text' => 'nq']];
        unset($then[0]['platforms']['mossfeed'], $then[0]['required'], $then[1]['fallback'][1]);
        $then[] = ['key' => 'utm_content', 'parts' => [['field' => 'ad.id']]];

        self::assertSame(
            [
                [null, 'clickId', 'required', 'optional'],
                [null, 'order', 'utm_source, utm_term', 'utm_source, utm_term, utm_content'],
                ['utm_source', 'says', 'northquay', 'nq'],
                ['utm_source', 'required', 'yes', 'no'],
                ['utm_source', 'mossfeed', 'moss', null],
                ['utm_term', 'fallback 2', 'none', null],
                ['utm_content', 'says', null, '‹ad.id›'],
                ['utm_content', 'shape', null, 'as-is'],
                ['utm_content', 'required', null, 'no'],
            ],
            array_map(
                static fn (PlanDifference $d): array => [$d->key, $d->place, $d->before, $d->after],
                PlanDifferences::between(self::plan(), self::plan($then, 'optional')),
            ),
        );
        self::assertSame([], PlanDifferences::between(self::plan(), self::plan()));
    }
}
