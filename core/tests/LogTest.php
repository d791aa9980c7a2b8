<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Watch\Instant;
use Vestigon\Core\Watch\Log\CombinedLog;
use Vestigon\Core\Watch\Log\ExtendedLog;
use Vestigon\Core\Watch\Log\Served;

/** Logs of web servers, by the examples of the documents that describe them. */
final class LogTest extends TestCase
{
    /** The example of Apache's documentation, “Log Files”, section “Combined Log Format”. */
    public function test_the_combined_log_format(): void
    {
        $line = '127.0.0.1 - frank [10/Oct/2000:13:55:36 -0700] "GET /apache_pb.gif HTTP/1.0" 200 2326 '
            .'"http://www.example.com/start.html" "Mozilla/4.08 [en] (Win98; I ;Nav)"';
        self::assertEquals(
            new Served(
                (int) Instant::read('2000-10-10T20:55:36.000Z'),
                'GET',
                '/apache_pb.gif',
                200,
                'http://www.example.com/start.html',
                'Mozilla/4.08 [en] (Win98; I ;Nav)',
                who: '127.0.0.1',
            ),
            (new CombinedLog())->read($line),
        );
        // the same document, section “Common Log Format”
        $common = (new CombinedLog())->read(explode(' "http', $line)[0]);
        self::assertSame(['/apache_pb.gif', '', ''], [$common?->target, $common?->referrer, $common?->agent]);
    }

    public function test_what_is_escaped_and_what_is_missing(): void
    {
        $read = static fn (string $request, string $more = '"-" "-"'): ?Served => (new CombinedLog())->read(
            "::1 - a b [10/Oct/2000:13:55:36 +0000] \"{$request}\" 304 - {$more}",
        );
        self::assertSame('/a"b', $read('GET /a\\"b HTTP/1.1')?->target);
        self::assertSame("/a\xC3\xA4", $read('GET /a\\xc3\\xa4 HTTP/1.1')?->target);
        self::assertSame(['', ''], [$read('GET / HTTP/1.1')?->referrer, $read('GET / HTTP/1.1')?->agent]);
        self::assertSame('say "hi"', $read('GET / HTTP/1.1', '"-" "say \\"hi\\""')?->agent);
        self::assertNull($read('-'));
        self::assertNull((new CombinedLog())->read('garbage'));
        self::assertNull((new CombinedLog())->read('a - - [yesterday] "GET / HTTP/1.1" 200 1'));
    }

    /** The example of the W3C working draft, section “Examples”. */
    public function test_the_extended_log_file_format(): void
    {
        $log = new ExtendedLog();
        $lines = [
            '#Version: 1.0',
            '#Date: 12-Jan-1996 00:00:00',
            '#Fields: time cs-method cs-uri',
            '00:34:23 GET /foo/bar.html',
            '12:21:16 GET /foo/bar.html',
            '12:45:52 GET /foo/bar.html',
            '12:57:34 GET /foo/bar.html',
        ];
        $read = array_values(array_filter(array_map($log->read(...), $lines)));
        self::assertSame(
            [
                '1996-01-12T00:34:23.000Z',
                '1996-01-12T12:21:16.000Z',
                '1996-01-12T12:45:52.000Z',
                '1996-01-12T12:57:34.000Z',
            ],
            array_map(static fn (Served $s): string => Instant::text($s->at), $read),
        );
        self::assertSame(['/foo/bar.html'], array_values(array_unique(array_column($read, 'target'))));
    }

    public function test_fields_as_servers_name_them(): void
    {
        $log = new ExtendedLog();
        $log->read(
            '#Fields: date time c-ip cs-method cs-uri-stem cs-uri-query sc-status cs(User-Agent) cs(Referer) cs(Host)',
        );
        $read = $log->read(
            '2026-10-05 09:00:00 192.0.2.7 GET /book utm_source=a&x=%20 200 Mozilla/5.0+(X11) '.
                '"https://a.example/?q=a b" shop.example',
        );
        self::assertEquals(
            new Served(
                (int) Instant::read('2026-10-05T09:00:00Z'),
                'GET',
                '/book?utm_source=a&x=%20',
                200,
                'https://a.example/?q=a b',
                'Mozilla/5.0 (X11)',
                'shop.example',
                '192.0.2.7',
            ),
            $read,
        );
        self::assertSame('/', $log->read('2026-10-05 09:00:00 - GET / - 200 - - -')?->target);
        self::assertNull($log->read('2026-10-05 09:00:00 GET /')); // fields are missing
        self::assertNull((new ExtendedLog())->read('2026-10-05 09:00:00 GET /')); // none are named
    }

    public function test_what_was_asked_for_is_an_address_at_the_host_that_was_asked_or_the_site_s(): void
    {
        $url = static function (string $target, string $host = ''): ?string {
            return (new Served(0, 'GET', $target, 200, host: $host))->url('shop.example');
        };
        self::assertSame('https://shop.example/book?a=1', $url('/book?a=1'));
        self::assertSame('https://other.example:8443/', $url('/', 'Other.example:8443'));
        self::assertSame('http://far.example/x', $url('http://far.example/x', 'other.example'));
        self::assertNull($url('*'));
        self::assertNull($url('far.example:443'));
    }

    /** @return iterable<string, array{string, string, int, bool}> */
    public static function requests(): iterable
    {
        yield 'a page' => ['GET', '/book?utm_source=a.css', 200, true];
        yield 'a page again' => ['GET', '/', 304, true];
        yield 'a page with an ending' => ['GET', '/index.php/a.html', 200, true];
        yield 'a picture' => ['GET', '/a/b.PNG?v=3', 200, false];
        yield 'a font' => ['GET', '/a.woff2', 200, false];
        yield 'a number in a path' => ['GET', '/v1.2', 200, true];
        yield 'sent' => ['POST', '/book', 200, false];
        yield 'elsewhere' => ['GET', '/old', 301, false];
        yield 'not there' => ['GET', '/none', 404, false];
    }

    #[DataProvider('requests')]
    public function test_what_is_a_page(string $method, string $target, int $status, bool $isPage): void
    {
        self::assertSame($isPage, (new Served(0, $method, $target, $status))->isPage());
    }
}
