<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Sheet\Certainty;
use Vestigon\Core\Sheet\SuggestedTable;
use Vestigon\Core\Sheet\Suggestion;

/** What headings and cells of an export might mean (common practice of the trade, no source). */
final class SuggestionTest extends TestCase
{
    /** @param list<list<string|int|float|null>> $rows */
    private static function of(array $rows, string $platform = 'northquay-search'): SuggestedTable
    {
        $dialect = Shipped::dialect($platform) ?? self::fail($platform);

        return (new Suggestion($dialect))->of('a table', $rows) ?? self::fail('it has headings');
    }

    /** @return array<string, string> heading → what it means */
    private static function means(SuggestedTable $table): array
    {
        $means = [];
        foreach ($table->columns as $column) {
            $means[$column->heading] = $column->means->written();
        }

        return $means;
    }

    public function test_an_export_of_ads_is_understood(): void
    {
        $table = self::of([
            ['Ads, all time'],
            [],
            [
                'Campaign ID',
                'Campaign',
                'Campaign type',
                'Ad group',
                'Ad ID',
                'Ad name',
                'Ad status',
                'Final URL',
                'Tracking',
                'Tail',
                'Clicks',
            ],
            ['71', 'Isles', 'Text', 'Foot', '9', 'Deck', 'Enabled', 'https://v.example/a', '{landing}', 'k={term}', ''],
            ['71', 'Isles', 'Film', 'Foot', '10', 'Bar', 'Paused', 'https://v.example/b', '', 'k={term}', '3'],
        ]);

        self::assertSame(2, $table->at);
        self::assertSame('ad', $table->level);
        self::assertSame(
            [
                'Campaign ID' => 'campaign.id',
                'Campaign' => 'campaign.name',
                'Campaign type' => 'campaign.type',
                'Ad group' => 'group.name',
                'Ad ID' => 'id',
                'Ad name' => 'name',
                'Ad status' => 'standing',
                'Final URL' => 'slot.landing',
                'Tracking' => 'slot.template',
                'Tail' => 'slot.suffix',
                'Clicks' => 'clicks',
            ],
            self::means($table),
        );
        $by = array_column($table->columns, null, 'heading');
        self::assertSame(Certainty::Sure, $by['Final URL']->certainty, 'heading and cells agree');
        self::assertSame(Certainty::Likely, $by['Tail']->certainty, 'its cells alone say so');
        self::assertSame(['Text' => 'text'], $by['Campaign type']->values);
        self::assertSame(['Film'], $by['Campaign type']->asked, 'a person is asked');
        self::assertSame(Certainty::Open, $by['Campaign type']->certainty);
        self::assertSame(['Enabled' => 'on', 'Paused' => 'paused'], $by['Ad status']->values);
    }

    public function test_numbers_beside_a_name_are_its_ids_and_what_says_nothing_is_asked(): void
    {
        $table = self::of([
            ['Ref', 'Campaign', 'Score'],
            ['7100', 'Isles', '5'],
            ['7200', 'Coves', '5'],
        ]);

        self::assertSame(['Ref' => 'id', 'Campaign' => 'name', 'Score' => 'ignore'], self::means($table));
        self::assertSame('campaign', $table->level);
        self::assertSame(Certainty::Open, $table->columns[2]->certainty);
        self::assertStringContainsString('beside “Campaign”', $table->columns[0]->why);
    }

    public function test_a_column_of_levels_says_what_each_row_is(): void
    {
        $table = self::of([
            ['Record', 'Campaign ID', 'Landing page'],
            ['Campaign', '71', ''],
            ['Ad group', '71', ''],
            ['Ad', '71', 'https://v.example'],
        ]);

        self::assertSame(
            ['Campaign' => 'campaign', 'Ad group' => 'group', 'Ad' => 'ad'],
            $table->rowKind?->levels,
        );
        self::assertNull($table->level);
    }

    public function test_a_platform_s_own_words_for_its_levels_are_known(): void
    {
        $table = self::of([['Teaser id', 'Teaser', 'Link'], ['1', 'x', 'https://v.example']], 'reedrail');

        self::assertSame(['Teaser id' => 'id', 'Teaser' => 'name', 'Link' => 'slot.landing'], self::means($table));
    }

    public function test_how_custom_parameters_stand_in_one_cell_is_found(): void
    {
        $form = static function (string ...$cells): array {
            $rows = [['Ad ID', 'Ad', 'Custom parameters']];
            foreach ($cells as $i => $cell) {
                $rows[] = [(string) (7 + $i), "Ad {$i}", $cell];
            }

            return array_values(self::of($rows)->columns[2]->form->toArray());
        };
        $prefix = Shipped::dialect('northquay-search')?->customParameters?->prefix;
        self::assertSame([';', '=', '', ''], $form('a=1; b=2', 'c=3'));
        self::assertSame([',', '=', '', ''], $form('a=1,b=2', 'c=3'));
        self::assertSame(['|', ':', '', ''], $form('a:1|b:2'));
        self::assertSame(
            [';', '=', "{{$prefix}", '}'],
            $form("{{$prefix}a}=1; {{$prefix}b}=2", "{{$prefix}c}=3"),
        );
        self::assertSame([';', '=', '', ''], $form('no list'), 'nothing fits: as it usually is');
    }

    public function test_headings_that_a_map_would_write_mean_what_they_say(): void
    {
        $table = self::of([
            ['level', 'id', 'name', 'type', 'standing', 'campaign.id', 'slot.landing', 'custom.season', 'attribute.w'],
            ['campaign', '7', 'Isles', 'text', 'on', '', '', 'x', ''],
            ['ad', '9', 'Deck', '', 'paused', '7', 'https://v.example/', '', '3'],
        ]);

        self::assertSame('level', $table->rowKind?->heading);
        self::assertSame(
            [
                'id' => 'id',
                'name' => 'name',
                'type' => 'type',
                'standing' => 'standing',
                'campaign.id' => 'campaign.id',
                'slot.landing' => 'slot.landing',
                'custom.season' => 'custom.season',
                'attribute.w' => 'attribute.w',
            ],
            self::means($table),
        );
        foreach ($table->columns as $column) {
            self::assertSame(Certainty::Sure, $column->certainty, $column->heading);
        }
    }
}
