<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\JsonItems;
use Vestigon\Core\Document\UnusableInput;

/** Arrays item by item, against PHP's own JSON parser on the whole. */
final class JsonItemsTest extends TestCase
{
    /** @return list<mixed> */
    private static function items(string $json, int $chunk): array
    {
        return array_map(
            static fn (Cursor $c): mixed => $c->value,
            iterator_to_array(new JsonItems(str_split($json, $chunk)), false),
        );
    }

    public function test_gives_what_the_parser_gives_however_the_text_is_cut(): void
    {
        foreach (
            [
                '[]',
                ' [ ] ',
                '[1,"a,]b",{"x":[1,{"y":"\\"}"}]},[],null, true ,"\\\\"]',
                "[\n\t\"é日\\u00e9\"\n]",
                '[[[["]"]]]]',
            ] as $json
        ) {
            foreach ([1, 2, 3, 7, 100] as $chunk) {
                self::assertSame(json_decode($json, true), self::items($json, $chunk), "{$json} by {$chunk}");
            }
        }
        mt_srand(8);
        for ($i = 0; $i < 400; $i++) {
            $make = static function (int $depth) use (&$make): mixed {
                return match ($depth > 3 ? mt_rand(0, 3) : mt_rand(0, 5)) {
                    0 => mt_rand(-9, 9),
                    1 => ['"', '\\', ',', ']', '}é', "\n", '\\"'][mt_rand(0, 6)],
                    2 => null,
                    3 => mt_rand(0, 1) === 1,
                    4 => array_map(static fn (): mixed => $make($depth + 1), range(0, mt_rand(0, 3))),
                    default => ['k,' => $make($depth + 1), ']' => $make($depth + 1)],
                };
            };
            $json = (string) json_encode([$make(0), $make(0)], mt_rand(0, 1) === 1 ? JSON_PRETTY_PRINT : 0);
            self::assertSame(json_decode($json, true), self::items($json, mt_rand(1, 9)));
        }
    }

    public function test_what_stands_beside_a_member_is_known_wherever_it_stands(): void
    {
        $document = ['format' => 'x/1', 'a' => [1, '"nodes"'], 'nodes' => [1, [2]], 'more' => ['b' => ']']];
        foreach ([1, 3, 1000] as $chunk) {
            $items = new JsonItems(str_split((string) json_encode($document), $chunk), 'nodes');
            self::assertCount(2, iterator_to_array($items, false));
            self::assertSame(array_diff_key($document, ['nodes' => 0]), $items->beside);
        }
        $this->expectExceptionMessage('behind the list "nodes"');
        iterator_to_array(new JsonItems(['{"nodes":[1],"more":'], 'nodes'), false);
    }

    public function test_a_document_that_is_no_array_is_the_only_item(): void
    {
        $items = new JsonItems(['{"a":', '[1]}']);
        self::assertSame(
            [['a' => [1]]],
            array_map(static fn (Cursor $c): mixed => $c->value, iterator_to_array($items, false)),
        );
        self::assertFalse($items->isArray);
    }

    /** @return iterable<string, array{string, string}> */
    public static function broken(): iterable
    {
        yield 'nothing' => ['', 'standard input: is not JSON (Syntax error)'];
        yield 'no end' => ['[1,2', '[1]: the text ends before the array does'];
        yield 'a string without end' => [
            '[1,"a',
            '[1]: is not JSON (Control character error, possibly incorrectly encoded)',
        ];
        yield 'a comma too many' => ['[1,]', '[1]: an item is wanted behind the comma'];
        yield 'a broken item' => ['[1,{"a":}]', '[1]: is not JSON (Syntax error)'];
        yield 'text behind the end' => ['[1] x', 'document: there is text behind the end of the array'];
        yield 'no comma' => ['[{"a":1}{"b":1}]', '[0]: is not JSON (Syntax error)'];
        yield 'the wrong bracket' => ['[1}', '[0]: "," or "]" is wanted behind it, "}" stands there'];
    }

    #[DataProvider('broken')]
    public function test_says_where_the_text_stops_being_json(string $json, string $message): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches('~^'.preg_quote(explode('(', $message)[0], '~').'~');
        self::items($json, 3);
    }

    public function test_memory_does_not_grow_with_the_number_of_items(): void
    {
        $item = '{"name":"'.str_repeat('x', 200).'"},';
        $chunks = (static function () use ($item): \Generator {
            yield '[';
            for ($i = 0; $i < 50_000; $i++) {
                yield $item;
            }
            yield '1]';
        })();
        memory_reset_peak_usage();
        $before = memory_get_usage();
        $count = 0;
        foreach (new JsonItems($chunks) as $ignored) {
            $count++;
        }
        self::assertSame(50_001, $count);
        self::assertLessThan(1 << 20, memory_get_peak_usage() - $before, 'the text has 10 MB');
    }
}
