<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Command\FeedCommand;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Feed\CellTest;
use Vestigon\Core\Feed\Comparison;
use Vestigon\Core\Feed\FeedReader;
use Vestigon\Core\Feed\Items;
use Vestigon\Core\Feed\Number;
use Vestigon\Core\Feed\Problem;
use Vestigon\Core\Feed\ProblemCode;
use Vestigon\Core\Url\LinkQuery;
use Vestigon\Core\Url\Query;

/** Worked feeds (data/feeds.json), and what holds of rules whatever they are. */
final class FeedTest extends TestCase
{
    /** @return iterable<string, array{array<string, mixed>, array<string, mixed>}> */
    public static function feeds(): iterable
    {
        foreach (json_decode((string) file_get_contents(__DIR__.'/data/feeds.json'), true) as $case) {
            yield $case['name'] => [$case['request'], $case['expect']];
        }
    }

    /**
     * @param array<string, mixed> $request
     * @param array<string, mixed> $expected
     */
    #[DataProvider('feeds')]
    public function test_a_worked_feed_comes_out_as_worked(array $request, array $expected): void
    {
        $answer = (new FeedCommand())->answer(new Cursor($request))->document;

        self::assertSame($expected, json_decode((string) json_encode($answer), true));
    }

    /** @return iterable<string, array{string, string, float|null}> */
    public static function numbers(): iterable
    {
        yield 'grouped by commas' => ['1,299.00 EUR', '.', 1299.0];
        yield 'grouped by points' => ['EUR 1.299,50', ',', 1299.5];
        yield 'grouped by apostrophes' => ["CHF 1'299.50", '.', 1299.5];
        yield 'grouped by thin spaces' => ["1\u{202f}299,5 kr", ',', 1299.5];
        yield 'below zero' => ['-3', '.', -3.0];
        yield 'a hyphen behind letters is none' => ['EUR-2000', '.', 2000.0];
        yield 'a range' => ['10-20', '.', 10.0];
        yield 'without a whole' => ['about .5', '.', 0.5];
        yield 'the end of a sentence' => ['for 12. Or more', '.', 12.0];
        yield 'nothing' => ['free', '.', null];
        yield 'empty' => ['', '.', null];
    }

    #[DataProvider('numbers')]
    public function test_the_first_number_of_a_cell(string $cell, string $decimal, ?float $number): void
    {
        self::assertSame($number, Number::first($cell, $decimal));
    }

    public function test_capitals_of_any_alphabet_do_not_matter_and_an_expression_ends(): void
    {
        self::assertTrue((new CellTest('c', Comparison::In, ['STRASSE', 'Ærø']))->holds('Straße'));
        self::assertTrue((new CellTest('c', Comparison::Ends, ['ÆRØ']))->holds('til Ærø'));
        self::assertFalse((new CellTest('c', Comparison::Has, ['ÆRØ'], isExact: true))->holds('til Ærø'));
        self::assertTrue((new CellTest('c', Comparison::IsEmpty, [], false))->holds('x'));
        $endless = str_repeat('a', 5000).'b';
        self::assertFalse(@preg_match(CellTest::pattern('^(a+)+$', false), $endless)); // it gives up
        self::assertFalse((new CellTest('c', Comparison::Matches, ['^(a+)+$']))->holds($endless));
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function unusable(): iterable
    {
        yield 'another format' => [['format' => 'x'], 'format'];
        yield 'no links' => [['reads' => ['form' => 'xml', 'id' => 'id', 'links' => []]], 'reads.links'];
        yield 'a test of nothing' => [
            ['rules' => [['title' => '', 'when' => [['column' => 'a']], 'do' => []]]],
            'rules[0].when[0]',
        ];
        yield 'an expression that is none' => [
            ['rules' => [['title' => '', 'when' => [['column' => 'a', 'matches' => '(']], 'do' => []]]],
            'rules[0].when[0].matches',
        ];
        yield 'another link' => [
            ['rules' => [['title' => '', 'links' => ['x'], 'do' => []]]],
            'rules[0].links[0]',
        ];
        yield 'a step of nothing' => [
            ['rules' => [['title' => '', 'do' => [['parts' => []]]]]],
            'rules[0].do[0]',
        ];
        yield 'a number as text' => [
            ['rules' => [['title' => '', 'when' => [['column' => 'a', 'over' => '3']], 'do' => []]]],
            'rules[0].when[0].over',
        ];
    }

    /** @param array<string, mixed> $wrong */
    #[DataProvider('unusable')]
    public function test_what_can_t_be_read_is_said_with_its_place(array $wrong, string $place): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches('~^'.preg_quote($place).':~');
        FeedReader::read(new Cursor($wrong + self::document([])));
    }

    public function test_rules_in_their_order_are_rules_one_by_one_and_what_no_rule_takes_stays_byte_for_byte(): void
    {
        mt_srand(20261127);
        $changed = 0;
        for ($i = 0; $i < 2000; $i++) {
            $rules = array_map(static fn (): array => self::randomRule(), range(1, mt_rand(1, 5)));
            $item = self::randomItem();
            $link = self::through($rules, $item);

            $one = $item['link'];
            foreach ($rules as $rule) {
                // tests and parts read the item as it came, so that the link goes in beside it
                $one = self::through([$rule], $item, $one);
            }
            self::assertSame($one, $link, (string) json_encode([$rules, $item]));
            self::assertSame(
                $item['link'],
                self::through(
                    array_map(
                        static fn (array $r): array => ['when' => [['column' => 'kind', 'in' => []]]] + $r,
                        $rules,
                    ),
                    $item,
                ),
            );
            $changed += (int) ($link !== $item['link']);
        }
        self::assertGreaterThan(1000, $changed);
    }

    public function test_what_is_known_of_links_with_the_same_keys_is_what_each_step_in_turn_makes_of_them(): void
    {
        mt_srand(20261201);
        foreach (range(1, 60) as $round) {
            $rules = array_map(
                static fn (int $i): array => self::randomRule() + ['title' => '']
                    + ($i % 3 === 0 ? ['links' => ['ad']] : []),
                range(1, mt_rand(1, 5)),
            );
            $document = self::document($rules);
            $document['reads']['links'][] = ['column' => 'ad', 'kind' => 'paid'];
            $feed = FeedReader::read(new Cursor($document));
            $items = new Items($feed);
            foreach (range(1, 60) as $i) {
                $item = ['id' => "{$i}", 'ad' => mt_rand(0, 3) === 0 ? '' : self::randomItem()['link']]
                    + self::randomItem();
                $wanted = $lacking = [];
                foreach (array_filter(['link' => $item['link'], 'ad' => $item['ad']]) as $column => $text) {
                    $link = new LinkQuery($text);
                    foreach ($feed->rules as $place => $rule) {
                        foreach ($rule->takes($item) && in_array($column, $rule->links ?? [$column], true)
                            ? $rule->steps
                            : [] as $step) {
                            if (! $step->follow($link, $step->value($item))) {
                                $lacking["{$place} ".($column === 'ad')][] = $column;
                            }
                        }
                    }
                    $wanted[$column] = (string) $link;
                }
                ksort($lacking);
                $outcome = $items->next($item);
                self::assertSame($wanted, $outcome->links, (string) json_encode([$rules, $item]));
                self::assertSame(
                    array_merge(...array_values($lacking)),
                    array_column(
                        array_filter(
                            $outcome->problems,
                            static fn (Problem $p): bool => $p->code === ProblemCode::EmptyColumn,
                        ),
                        'column',
                    ),
                );
            }
        }
    }

    public function test_steps_do_what_a_page_reads(): void
    {
        mt_srand(7);
        for ($i = 0; $i < 2000; $i++) {
            ['link' => $link] = $item = self::randomItem();
            $values = static fn (string $url, string $key): array => array_column(
                array_filter(Query::read($url), static fn (array $p): bool => $p[0] === $key),
                1,
            );
            $others = static fn (string $url): array => array_values(
                array_filter(
                    Query::read($url),
                    static fn (array $p): bool => ! in_array($p[0], ['a', 'b c'], true),
                ),
            );
            $set = self::through([['do' => [['set' => 'b c', 'parts' => [['text' => 'x&y ß']]]]]], $item);
            self::assertSame(['x&y ß'], $values($set, 'b c'));
            self::assertSame($values($link, 'a'), $values($set, 'a'));
            $taken = self::through([['do' => [['take' => 'a']]]], $item);
            self::assertSame([], $values($taken, 'a'));
            $renamed = self::through([['do' => [['rename' => 'a', 'to' => 'b c']]]], $item);
            $was = $values($link, 'a');
            self::assertSame($was === [] ? $values($link, 'b c') : [$was[0]], $values($renamed, 'b c'));
            foreach ([$set, $taken, $renamed] as $url) {
                self::assertSame($others($link), $others($url));
                self::assertSame(strstr($link, '#'), strstr($url, '#'));
            }
        }
    }

    /**
     * @param list<array<string, mixed>> $rules
     * @param array<string, string> $item
     */
    private static function through(array $rules, array $item, ?string $link = null): string
    {
        $rules = array_map(static fn (array $r): array => $r + ['title' => ''], $rules);
        $document = self::document($rules);
        $document['reads']['links'][0]['column'] = 'now';

        return (new Items(FeedReader::read(new Cursor($document))))->next(
            ['now' => $link ?? $item['link']] + $item,
        )->links['now'];
    }

    /**
     * @param list<array<string, mixed>> $rules
     * @return array<string, mixed>
     */
    private static function document(array $rules): array
    {
        return [
            'format' => 'vestigon.feed/1',
            'title' => 'Tickets',
            'reads' => [
                'form' => 'delimited',
                'id' => 'id',
                'links' => [['column' => 'link', 'kind' => 'unpaid']],
            ],
            'rules' => $rules,
        ];
    }

    /** @return array<string, string> */
    private static function randomItem(): array
    {
        $pieces = ['a=1', 'a', 'b+c=2', 'b%20c', 'x=%7e', '', 'a=%2B', 'y=a=b', '%61=3', 'z==1=', '%1$s', '=2', 'q=?'];
        shuffle($pieces);
        $some = array_slice($pieces, 0, mt_rand(0, 5));

        return [
            'id' => '1',
            'kind' => ['ticket', 'cabin', ''][mt_rand(0, 2)],
            'link' => 'https://velmar.example/t'.
                ($some === [] ? ['', '?'][mt_rand(0, 1)] : '?'.implode('&', $some)).
                ['', '#', '#top?a=1'][mt_rand(0, 2)],
        ];
    }

    /** @return array<string, mixed> */
    private static function randomRule(): array
    {
        $key = static fn (): string => ['a', 'b c', 'x', 'z'][mt_rand(0, 3)];
        $parts = [['text' => 'v&'], ['column' => ['kind', 'link'][mt_rand(0, 1)]]];

        return [
            'when' => mt_rand(0, 2) > 0 ? [] : [['column' => 'kind', 'in' => ['Ticket', '']]],
            'do' => array_map(
                static fn (): array => match (mt_rand(0, 3)) {
                    0 => ['set' => $key(), 'parts' => $parts],
                    1 => ['add' => $key(), 'parts' => $parts],
                    2 => ['take' => $key()],
                    default => ['rename' => $key(), 'to' => $key()],
                },
                range(1, mt_rand(1, 3)),
            ),
        ];
    }
}
