<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Template\Element;
use Vestigon\Core\Template\Element\CatalogueToken;
use Vestigon\Core\Template\Element\Conditional;
use Vestigon\Core\Template\Element\CustomParameter;
use Vestigon\Core\Template\Element\Literal;
use Vestigon\Core\Template\Element\UnknownToken;
use Vestigon\Core\Template\Template;
use Vestigon\Core\Template\TemplateReader;

final class TemplateTest extends TestCase
{
    /** @return iterable<array{string, string}> a text, and its parts as kind:source */
    public static function texts(): iterable
    {
        yield ['{landing}?a={Term}', 'token:{landing} text:?a= token:{Term}'];
        yield ['a{term', 'text:a{term'];
        yield ['{term{', 'text:{term{'];
        yield ['{a{b}', 'text:{a unknown:{b}'];
        yield ['{a{term}c}', 'unknown:{a{term}c}'];
        yield ['{}', 'unknown:{}'];
        yield ['{my.}{my.x}{MY.Y}', 'unknown:{my.} custom:{my.x} custom:{MY.Y}'];
        yield ['{phone-only:m-{term}}x', 'when:{phone-only:(text:m- token:{term}) text:x'];
        yield ['{phone-only}', 'unknown:{phone-only}'];
        yield ['{if.other:a}', 'unknown:{if.other:a}'];
        yield ['}{term}}', 'text:} token:{term} text:}'];
        yield ['', ''];
    }

    #[DataProvider('texts')]
    public function test_reads(string $text, string $expected): void
    {
        $template = (new TemplateReader(Make::northquay()))->read($text);
        self::assertSame($expected, self::shown($template));
    }

    public function test_where_both_marks_are_the_same_the_next_one_closes(): void
    {
        $reader = new TemplateReader(Shipped::dialect('bannerloom') ?? self::fail());
        self::assertSame('text:a unknown:^^x^^ text:site^^b', self::shown($reader->read('a^^x^^site^^b')));
    }

    /**
     * Reading a text and printing it gives it back, for any bytes; the parts stand end to end where they say they
     * stand.
     */
    public function test_printing_gives_the_text_back(): void
    {
        mt_srand(42);
        $bits = [
            '{',
            '}',
            '{{',
            'term',
            'landing',
            'my.',
            'phone-only:',
            ':',
            'x',
            '&',
            '=',
            "\xFF",
            '{term}',
            '^^',
            '~',
            '(:',
            ':)',
            '<<',
            '>>',
            '[',
            ']',
            'é',
        ];
        $dialects = array_map(Shipped::dialect(...), Shipped::ids());
        for ($i = 0; $i < 4000; $i++) {
            $text = implode(
                '',
                array_map(static fn (): string => $bits[mt_rand(0, count($bits) - 1)], range(1, mt_rand(1, 14))),
            );
            $dialect = $dialects[$i % count($dialects)] ?? self::fail();
            $template = (new TemplateReader($dialect))->read($text);
            self::assertSame($text, (string) $template, $dialect->id);
            foreach ($template->walk() as $part) {
                self::assertSame($part->source, substr($text, $part->offset, strlen($part->source)));
            }
        }
    }

    public function test_ten_thousand_nested_conditionals_are_read(): void
    {
        $text = str_repeat('{phone-only:a', 10_000).str_repeat('}', 10_000);
        $depth = 0;
        foreach ((new TemplateReader(Make::northquay()))->read($text)->walk() as $part) {
            $depth += $part instanceof Conditional ? 1 : 0;
        }
        self::assertSame(10_000, $depth);
    }

    private static function shown(Template $template): string
    {
        return implode(
            ' ',
            array_map(
                static fn (Element $p): string => match (true) {
                    $p instanceof Literal => "text:{$p->source}",
                    $p instanceof CatalogueToken => "token:{$p->source}",
                    $p instanceof CustomParameter => "custom:{$p->source}",
                    $p instanceof Conditional => "when:{$p->source}(".self::shown($p->then).')',
                    $p instanceof UnknownToken => "unknown:{$p->source}",
                    default => self::fail('a part of an unknown kind'),
                },
                $template->parts,
            ),
        );
    }
}
