<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Naming\Pattern;
use Vestigon\Core\Naming\PatternReader;
use Vestigon\Core\Naming\Trouble;

final class NamingTest extends TestCase
{
    /** @param list<array<string, mixed>> $parts */
    private static function pattern(array $parts, string $separator = '_'): Pattern
    {
        return PatternReader::read(
            new Cursor(['format' => 'vestigon.naming/1', 'separator' => $separator, 'parts' => $parts]),
        );
    }

    private static function campaigns(): Pattern
    {
        return self::pattern([
            ['name' => 'market', 'words' => ['uk', 'fr']],
            ['name' => 'aim', 'words' => ['brand', 'sale']],
            ['name' => 'season', 'optional' => true, 'matches' => '(summer|winter)-\d{2}'],
            ['name' => 'free'],
        ]);
    }

    public function test_composes_and_reads_back(): void
    {
        foreach (
            [
                ['market' => 'uk', 'aim' => 'brand', 'season' => 'summer-27', 'free' => 'Ærø foot'],
                ['market' => 'fr', 'aim' => 'sale', 'free' => 'x'],
            ] as $values
        ) {
            $name = self::campaigns()->compose($values);
            self::assertIsString($name);
            $read = self::campaigns()->read($name);
            self::assertSame([$values, []], [$read->values, $read->trouble]);
        }
        self::assertSame(
            'uk_brand_summer-27_x',
            self::campaigns()->compose([
                'market' => 'uk',
                'aim' => 'brand',
                'season' => 'summer-27',
                'free' => 'x',
            ]),
        );
    }

    /** @return iterable<string, array{string, list<string>}> a name, and what is wrong: stretch and why */
    public static function names(): iterable
    {
        yield 'right' => ['uk_sale_x', []];
        yield 'a word that is not allowed' => ['de_sale_x', ['de: “de” is not one of uk, fr']];
        yield 'a part with the wrong form' => ['uk_sale_spring-27_x', ['x: “x” is more than the pattern has']];
        yield 'an empty part' => ['uk__x', [': the part aim is empty']];
        yield 'a part missing' => ['uk_sale', [': the part free is missing']];
        yield 'too much' => ['uk_sale_winter-26_x_y', ['y: “y” is more than the pattern has']];
    }

    /** @param list<string> $expected */
    #[DataProvider('names')]
    public function test_says_what_is_wrong_with_a_name_and_where(string $name, array $expected): void
    {
        self::assertSame(
            $expected,
            array_map(
                static fn (Trouble $t): string => substr($name, (int) $t->at, $t->length).": {$t->why}",
                self::campaigns()->read($name)->trouble,
            ),
        );
    }

    public function test_says_what_is_wrong_with_values(): void
    {
        $trouble = self::campaigns()->compose(['market' => 'de', 'aim' => 'sale', 'free' => 'a_b']);
        self::assertIsArray($trouble);
        self::assertSame(
            ['market: “de” is not one of uk, fr', 'free: “a_b” holds the separator _'],
            array_map(static fn (Trouble $t): string => "{$t->part}: {$t->why}", $trouble),
        );
    }

    /** Whatever can be composed reads back as the same values. */
    public function test_random_values_read_back_or_are_refused(): void
    {
        mt_srand(11);
        $pattern = self::pattern(
            [['name' => 'a'], ['name' => 'b', 'words' => ['x', 'y']], ['name' => 'c']],
            ' | ',
        );
        $pieces = ['x', 'y', ' | ', '|', ' ', 'é', "\xFF", '1'];
        for ($i = 0; $i < 3000; $i++) {
            $some = static fn (): string => implode(
                '',
                array_map(static fn (): string => $pieces[mt_rand(0, 7)], range(0, mt_rand(0, 2))),
            );
            $values = ['a' => $some(), 'b' => $some(), 'c' => $some()];
            $name = $pattern->compose($values);
            if (is_string($name)) {
                $again = $pattern->read($name);
                // a separator can also come about where two parts meet: then the name is refused, not misread
                self::assertTrue($again->trouble !== [] || $again->values === $values, $name);
            }
        }
    }

    /** @return iterable<string, array{list<array<string, mixed>>, string}> */
    public static function broken(): iterable
    {
        yield 'no parts' => [[], 'parts: at least one part is wanted'];
        yield 'twice' => [[['name' => 'a'], ['name' => 'a']], 'parts[1].name: "a" is there twice'];
        yield 'a word with the separator' => [
            [['name' => 'a', 'words' => ['x_y']]],
            'parts[0].words: "x_y" can\'t be a word here: it is empty or holds the separator',
        ];
        yield 'no expression' => [
            [['name' => 'a', 'matches' => '[']],
            'parts[0].matches: "[" is no regular expression',
        ];
    }

    /** @param list<array<string, mixed>> $parts */
    #[DataProvider('broken')]
    public function test_a_broken_pattern_is_refused_with_the_place(array $parts, string $message): void
    {
        $this->expectExceptionObject(new UnusableInput($message));
        self::pattern($parts);
    }
}
