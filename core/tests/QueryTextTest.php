<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Url\Query;
use Vestigon\Core\Url\QueryPiece;
use Vestigon\Core\Url\QueryText;

final class QueryTextTest extends TestCase
{
    private const PIECES = [
        'https://v.example/p',
        'a=1',
        'b',
        '=',
        '?',
        '&',
        '&&',
        '#',
        'k=%2541',
        '{term}',
        '{my.n}=x',
        'x={phone-only:&m=1}',
        '{',
        '}',
        'ä ö',
        '%',
        "\0",
        "\1",
    ];

    public function test_put_together_again_it_is_the_same_text(): void
    {
        mt_srand(5);
        $reader = new TemplateReader(Make::northquay());
        for ($i = 0; $i < 3000; $i++) {
            $text = self::text();
            $template = $reader->read($text);
            foreach (
                [
                    $template->query(false),
                    $template->query(true),
                    $template->queryInside(true),
                    QueryText::ofUrl($text),
                ] as $query
            ) {
                self::assertSame(
                    $text,
                    implode(
                        '',
                        array_map(static fn (QueryPiece $p): string => $p->behind($p->mark), $query->pieces),
                    ),
                );
                foreach ($query->pieces as $piece) {
                    self::assertSame($piece->text, substr($text, $piece->at, strlen($piece->text)));
                }
            }
        }
    }

    /**
     * The parameters of a URL are the pairs that the WHATWG urlencoded parser reads; UrlTest holds that one against
     * Node's.
     */
    public function test_a_url_s_parameters_are_those_that_a_page_reads(): void
    {
        mt_srand(6);
        for ($i = 0; $i < 3000; $i++) {
            $url = 'https://v.example/'.self::text();
            $pairs = [];
            foreach (QueryText::ofUrl($url)->parameters() as $piece) {
                if ($piece->text !== '') {
                    $pairs[] = [$piece->name(), Query::decoded($piece->value ?? '')];
                }
            }
            self::assertSame(Query::read($url), $pairs, $url);
        }
    }

    public function test_without_and_with_touch_nothing_else(): void
    {
        $suffix = (new TemplateReader(Make::northquay()))
            ->read('a=1&utm_source={term}&utm%5Fsource=2&b={phone-only:&c=3}#utm_source=4')
            ->query(true);

        self::assertSame('a=1&b={phone-only:&c=3}#utm_source=4', $suffix->without(['utm_source']));
        self::assertSame('a=1&utm_source=x&b={phone-only:&c=3}#utm_source=4', $suffix->with('utm_source', 'x'));
        self::assertSame(
            'a=1&utm_source={term}&utm%5Fsource=2&b={phone-only:&c=3}&d=9#utm_source=4',
            $suffix->with('d', '9'),
        );
        self::assertSame(
            'z=0&a=1&utm_source={term}&utm%5Fsource=2&b={phone-only:&c=3}#utm_source=4',
            $suffix->before('z=0'),
        );
        self::assertSame(['a', 'utm_source', 'utm_source', 'b'], $suffix->keys());
    }

    public function test_what_stands_in_a_condition_is_taken_as_if_it_counted(): void
    {
        $inside = (new TemplateReader(Make::northquay()))
            ->read('{landing}?x={phone-only:1&m=2{term}}')
            ->queryInside(false);

        self::assertSame(
            [['', '{landing}', false, null], ['?', 'x', true, '{phone-only:1'], ['&', 'm', true, '2{term}']],
            array_map(
                static fn (QueryPiece $p): array => [$p->mark, $p->key, $p->keyFixed, $p->value],
                $inside->pieces,
            ),
        );
    }

    private static function text(): string
    {
        $text = '';
        for ($i = 0, $n = mt_rand(0, 9); $i < $n; $i++) {
            $text .= self::PIECES[mt_rand(0, count(self::PIECES) - 1)];
        }

        return $text;
    }
}
