<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use League\Uri\Uri;
use League\Uri\UriTemplate;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Url\Encoding;
use Vestigon\Core\Url\Query;

final class UrlTest extends TestCase
{
    /** RFC 3986 §2.2 (reserved) and §2.3 (unreserved): the whole of ASCII. */
    public function test_encodes_all_but_the_unreserved_characters(): void
    {
        $unreserved = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-._~';
        for ($byte = 0; $byte < 256; $byte++) {
            $expected = str_contains($unreserved, chr($byte)) ? chr($byte) : sprintf('%%%02X', $byte);
            self::assertSame($expected, Encoding::encode(chr($byte)));
        }
        foreach (str_split(":/?#[]@!$&'()*+,;=") as $reserved) {
            self::assertSame(sprintf('%%%02X', ord($reserved)), Encoding::encode($reserved));
        }
    }

    /**
     * RFC 3986 §2.5: "the character A is encoded as A, the character A with grave as %C3%80, the katakana letter a as
     * %E3%82%A2".
     */
    public function test_encodes_the_examples_of_the_standard(): void
    {
        self::assertSame(
            ['A', '%C3%80', '%E3%82%A2'],
            array_map(Encoding::encode(...), ['A', "\u{C0}", "\u{30A2}"]),
        );
    }

    public function test_each_further_pass_encodes_the_percent_signs(): void
    {
        self::assertSame('a%2520b', Encoding::encode('a b', 2));
        self::assertSame('a%2Bb', Encoding::encode('a b', 2, plusForSpace: true));
        self::assertSame('a b', Encoding::encode('a b', 0));
    }

    /** @return iterable<array{string, string, string}> */
    public static function joins(): iterable
    {
        yield ['https://v.example/b', 'a=1', 'https://v.example/b?a=1'];
        yield ['https://v.example/b?x=1', '?&?a=1', 'https://v.example/b?x=1&a=1'];
        yield ['https://v.example/b?', 'a=1', 'https://v.example/b?a=1'];
        yield ['https://v.example/b?x&', 'a=1', 'https://v.example/b?x&a=1'];
        yield ['https://v.example/b#f?x', 'a=1', 'https://v.example/b?a=1#f?x'];
        yield ['https://v.example/b#f', '?&', 'https://v.example/b#f'];
        yield ['', 'a=1', '?a=1'];
    }

    #[DataProvider('joins')]
    public function test_joins(string $url, string $query, string $expected): void
    {
        self::assertSame($expected, Query::join($url, $query));
    }

    /** 6,000 generated cases against the WHATWG URL Standard in Node's implementation, and RFC 3986 in league/uri. */
    public function test_reads_writes_and_joins_as_the_standards_do(): void
    {
        mt_srand(3986);
        $bits = [
            'a',
            'b=1',
            '=',
            '&',
            '&&',
            '+',
            '%20',
            '%',
            '%2',
            '%zz',
            '%41',
            '%E4%BD%A0',
            '%FF',
            '%F0%9F',
            'é',
            '日本',
            '🛥',
            ' ',
            '?',
            ';',
            '~',
            '*',
            '%26',
            '%3D',
            "\u{0}",
            '\\',
            '"',
        ];
        $text = static fn (int $most): string => implode(
            '',
            array_map(static fn (): string => $bits[mt_rand(0, count($bits) - 1)], range(1, mt_rand(1, $most))),
        );
        $read = $serialize = $join = [];
        for ($i = 0; $i < 2000; $i++) {
            $read[] = $text(8);
            $serialize[] = [$text(4), $text(4)];
            $query = 'k'.$i.'='.rawurlencode($text(3)).'&m='.rawurlencode($text(2));
            $join[] = [
                'https://v.example/b'
                .[0 => '', 1 => '?x=1', 2 => '?x=1&y', 3 => '?'][mt_rand(0, 3)]
                .[0 => '', 1 => '#f', 2 => '#?a=1'][mt_rand(0, 2)],
                $query,
            ];
        }
        $node = self::oracle(['read' => $read, 'serialize' => $serialize, 'join' => $join]);

        foreach ($read as $i => $query) {
            self::assertSame($node['read'][$i], Query::read('https://v.example/?'.$query), $query);
        }
        foreach ($serialize as $i => [$key, $value]) {
            self::assertSame($node['serialize'][$i], Query::formEncoded($key).'='.Query::formEncoded($value));
        }
        foreach ($join as $i => [$url, $query]) {
            $joined = Query::join($url, $query);
            self::assertSame($node['join'][$i]['pairs'], Query::read($joined), "{$url} {$query}");
            self::assertSame($node['join'][$i]['hash'], substr($joined, Query::end($joined)));
            self::assertSame(
                $url,
                self::without($joined, $query, $url),
                'existing pieces and the fragment stay byte for byte',
            );
            $uri = Uri::new($joined);
            self::assertSame(Query::of($joined), $uri->getQuery());
            self::assertSame(
                substr($joined, Query::end($joined)),
                $uri->getFragment() === null ? '' : '#'.$uri->getFragment(),
            );
        }
    }

    /**
     * RFC 3986 §5.4: the URIs of its tables of resolved references.
     *
     * @return iterable<array{string}>
     */
    public static function resolved(): iterable
    {
        foreach (
            [
                'g:h',
                'http://a/b/c/g',
                'http://a/b/c/g/',
                'http://a/g',
                'http://g',
                'http://a/b/c/d;p?y',
                'http://a/b/c/g?y',
                'http://a/b/c/d;p?q#s',
                'http://a/b/c/g#s',
                'http://a/b/c/g?y#s',
                'http://a/b/c/;x',
                'http://a/b/c/g;x',
                'http://a/b/c/g;x?y#s',
                'http://a/b/c/d;p?q',
                'http://a/b/c/',
                'http://a/b/',
                'http://a/b/g',
                'http://a/',
                'http://a/b/c/g.',
                'http://a/b/c/..g',
                'http://a/b/c/g;x=1/y',
                'http://a/b/c/g?y/./x',
                'http://a/b/c/g?y/../x',
                'http://a/b/c/g#s/./x',
                'http://a/b/c/g#s/../x', // not http:g, which league/uri takes for no URI
            ] as $uri
        ) {
            yield $uri => [$uri];
        }
    }

    /** Taken apart as RFC 3986 appendix B does, and by league/uri; what is joined leaves all other parts alone. */
    #[DataProvider('resolved')]
    public function test_takes_the_uris_of_the_standard_apart_as_it_does(string $uri): void
    {
        self::assertSame(
            1,
            preg_match(
                '~^(([^:/?#]+):)?(//([^/?#]*))?([^?#]*)(\?([^#]*))?(#(.*))?~',
                $uri,
                $part,
                PREG_UNMATCHED_AS_NULL,
            ),
        );
        self::assertSame($part[7], Query::of($uri));
        self::assertSame((string) $part[8], substr($uri, Query::end($uri)));
        self::assertSame(Uri::new($uri)->getQuery(), Query::of($uri));

        preg_match(
            '~^(([^:/?#]+):)?(//([^/?#]*))?([^?#]*)(\?([^#]*))?(#(.*))?~',
            $joined = Query::join($uri, 'k=v'),
            $then,
            PREG_UNMATCHED_AS_NULL,
        );
        self::assertSame(
            [$part[1], $part[3], $part[5], $part[8]],
            [$then[1], $then[3], $then[5], $then[8]],
            $joined,
        );
        self::assertSame(ltrim("{$part[7]}&k=v", '&'), $then[7]);
    }

    /**
     * RFC 6570 level 1: its own examples (§1.2), and generated ones against league/uri, on a platform set up to behave
     * so.
     */
    public function test_fills_value_tokens_as_level_1_uri_templates_do(): void
    {
        $document = json_decode((string) file_get_contents(dirname(__DIR__).'/dialects/bannerloom.json'), true);
        $document =
            [
                'syntax' => ['open' => '{', 'close' => '}', 'caseSensitive' => true, 'unknown' => 'blank'],
                'tokens' => [
                    ['name' => 'var', 'kind' => 'value', 'field' => 'placement'],
                    ['name' => 'hello', 'kind' => 'value', 'field' => 'publisher.name'],
                    ['name' => 'empty', 'kind' => 'value', 'field' => 'page.url'],
                ],
            ] + $document;
        $dialect = DialectReader::read(new Cursor($document));
        $expand = static fn (string $template, string $var, string $hello): ?string => Route::of(
            new Path($dialect, [
                new Node('account', 'A', 'A'),
                new Node('banner', '1', 'B', null, ['landing' => "http://v.example/{$template}"]),
            ]),
        )->clickUrl(['placement' => $var, 'publisher.name' => $hello]);

        self::assertSame('http://v.example/value', $expand('{var}', 'value', 'Hello World!'));
        self::assertSame('http://v.example/Hello%20World%21', $expand('{hello}', 'value', 'Hello World!'));
        self::assertSame('http://v.example/OX', $expand('O{empty}X', 'value', 'Hello World!'));
        mt_srand(6570);
        for ($i = 0; $i < 500; $i++) {
            $some = static fn (): string => implode(
                '',
                array_map(
                    static fn (): string => [
                        'a',
                        'Z',
                        '9',
                        ' ',
                        '/',
                        '?',
                        '%',
                        'é',
                        '日',
                        '🛥',
                        '~',
                        '-',
                        '{',
                        '"',
                        '+',
                        '&',
                        '=',
                    ][mt_rand(0, 16)],
                    range(0, mt_rand(0, 6)),
                ),
            );
            [$var, $hello] = [$some(), $some()];
            $template = implode(
                '',
                array_map(
                    static fn (): string => ['{var}', '{hello}', '{empty}', 'x', '/', '-'][mt_rand(0, 5)],
                    range(0, mt_rand(1, 5)),
                ),
            );
            self::assertSame(
                (string) (new UriTemplate("http://v.example/{$template}"))->expand([
                    'var' => $var,
                    'hello' => $hello,
                ]),
                $expand($template, $var, $hello),
                "{$template} {$var} {$hello}",
            );
        }
    }

    /** Takes the query out again, with the separator it was given. */
    private static function without(string $joined, string $query, string $url): string
    {
        $separator = Query::separator($url, Query::end($url));

        return substr_replace(
            $joined,
            '',
            (int) strpos($joined, $separator.$query),
            strlen($separator.$query),
        );
    }

    /**
     * @param array<string, mixed> $cases
     * @return array{
     *     read: list<list<array{string, string}>>, serialize: list<string>,
     *     join: list<array{pairs: list<array{string, string}>, hash: string}>
     * }
     */
    private static function oracle(array $cases): array
    {
        $node = new Process(['node', __DIR__.'/oracle/url.mjs'], input: json_encode($cases, JSON_THROW_ON_ERROR));

        return json_decode($node->mustRun()->getOutput(), true, flags: JSON_THROW_ON_ERROR);
    }
}
