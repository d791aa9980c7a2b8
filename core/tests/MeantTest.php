<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Plan\Lane;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Watch\Meant;

/** Views of an invented account read as they were meant. */
final class MeantTest extends TestCase
{
    private static function truth(): Truth
    {
        $plan = PlanReader::read(new Cursor([
            'format' => PlanReader::FORMAT,
            'id' => 'p',
            'title' => 'p',
            'clickId' => 'optional',
            'parameters' => [
                ['key' => 'utm_source', 'parts' => [['text' => 'northquay']]],
                ['key' => 'utm_medium', 'parts' => [['text' => 'cpc']]],
                ['key' => 'utm_campaign', 'parts' => [['field' => 'campaign.name']], 'shape' => 'slug'],
                ['key' => 'utm_term', 'parts' => [['field' => 'keyword.text']]],
            ],
        ]));
        $dialect = Shipped::dialect('northquay-search') ?? self::fail('a shipped platform is wanted');

        return Truth::of($plan, $dialect, new Lane('text'), static fn (): bool => true);
    }

    /**
     * @return iterable<string, array{string, array<string, string>, string, list<array{string, string, string}>,
     *     list<string>}> what arrived, what is known of the click, as it was meant, what is healed, what is unknown
     */
    public static function views(): iterable
    {
        $known = ['campaign.name' => 'Summer Sale', 'keyword.text' => 'ferry to skerrow'];
        $right = 'utm_source=northquay&utm_medium=cpc&utm_campaign=summer_sale&utm_term=ferry+to+skerrow';
        yield 'as it was meant' => ["https://v.example/?{$right}", $known, "https://v.example/?{$right}", [], []];
        yield 'in part, something else between, a fragment behind' => [
            'https://v.example/?utm_source=NQ&lang=en&utm_medium=cpc#top',
            $known,
            'https://v.example/?utm_source=northquay&lang=en&utm_medium=cpc&utm_campaign=summer_sale'
                .'&utm_term=ferry%20to%20skerrow#top',
            [
                ['utm_source', 'NQ', 'northquay'],
                ['utm_campaign', '', 'summer_sale'],
                ['utm_term', '', 'ferry to skerrow'],
            ],
            [],
        ];
        yield 'a key twice is there once' => [
            'https://v.example/?utm_source=x&utm_source=northquay&utm_medium=cpc&utm_campaign=summer_sale',
            ['campaign.name' => 'Summer Sale'],
            'https://v.example/?utm_source=northquay&utm_medium=cpc&utm_campaign=summer_sale',
            [['utm_source', 'x', 'northquay']],
            ['utm_term'],
        ];
        yield 'what nothing is known of stays as it arrived' => [
            'https://v.example/?utm_source=northquay&utm_medium=cpc&utm_term={keyword}',
            [],
            'https://v.example/?utm_source=northquay&utm_medium=cpc&utm_term={keyword}',
            [],
            ['utm_campaign', 'utm_term'],
        ];
        yield 'no keyword, and nothing is wanted of it' => [
            'https://v.example/?utm_source=northquay&utm_medium=cpc&utm_campaign=summer_sale',
            ['campaign.name' => 'Summer Sale', 'keyword.text' => ''],
            'https://v.example/?utm_source=northquay&utm_medium=cpc&utm_campaign=summer_sale',
            [],
            [],
        ];
    }

    /**
     * @param array<string, string> $fields
     * @param list<array{string, string, string}> $healed
     * @param list<string> $unknown
     */
    #[DataProvider('views')]
    public function test_a_view_is_read_as_it_was_meant(
        string $url,
        array $fields,
        string $meant,
        array $healed,
        array $unknown,
    ): void {
        $read = Meant::of($url, self::truth(), $fields);
        self::assertSame([$meant, $healed, $unknown], [$read->url, $read->healed, $read->unknown]);
        self::assertSame($meant, Meant::of($meant, self::truth(), $fields)->url, 'what is healed stays as it is');
    }
}
