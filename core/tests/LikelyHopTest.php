<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\LikelyHop;
use Vestigon\Core\Trace\Stop;
use Vestigon\Core\Trace\Trail;

/** Redirects are found where texts show them. That redirects carry the way on in a parameter: common practice. */
final class LikelyHopTest extends TestCase
{
    /** @return array<string, array{string, list<mixed>|null}> a template; host, parameter, forwards, sure */
    public static function templates(): array
    {
        return [
            'encoded, with keys beside' => [
                'https://Go.Hopgate.example:8443/r?to={landing.enc}&utm_source=b',
                ['go.hopgate.example', 'to', true, true],
            ],
            'the parameter that holds it, not the first' => [
                'http://go.example/r?x%5B=1&u%5B={landing.enc}',
                ['go.example', 'u[', true, true],
            ],
            'encoded, alone' => ['http://go.example/r?u={landing.enc}', ['go.example', 'u', false, true]],
            'not encoded' => ['https://go.example/?u={landing}', ['go.example', 'u', false, false]],
            'no landing token' => ['https://go.example/?u=1', null],
            'the token is no value' => ['https://go.example/{landing.enc}?a=1', null],
            'the landing URL first' => ['{landing}?to={landing.enc}', null],
            'a host that a token fills in' => ['https://{landing.enc}?to={landing.enc}', null],
            'no web address' => ['ftp://go.example/?u={landing.enc}', null],
        ];
    }

    /** @param list<mixed>|null $is */
    #[DataProvider('templates')]
    public function test_a_template_shows_it(string $text, ?array $is): void
    {
        $likely = LikelyHop::inTemplate($text, new TemplateReader(Make::northquay()));
        self::assertSame(
            $is,
            $likely === null
                ? null
                : [$likely->hop->host, $likely->hop->to, $likely->hop->appends, $likely->isSure],
        );
    }

    /** What is read out of a URL leads where it says, by the trail itself. */
    public function test_a_landing_url_shows_it_and_its_trail_leads_on(): void
    {
        $url = 'https://go.example/r?k=1&url=https%3A%2F%2Fshop.example%2Fa%3Fb%3D1';
        $likely = LikelyHop::inLanding($url);
        self::assertNotNull($likely);
        self::assertSame(
            [[$url, Stop::Hop], ['https://shop.example/a?b=1&k=1', Stop::Landed]],
            Trail::through([$likely->hop])->from($url),
        );
        self::assertNull(LikelyHop::inLanding('https://shop.example/?back=https%3A%2F%2Fshop.example%2F'));
        self::assertNull(LikelyHop::inLanding('https://shop.example/?url=www.other.example'));
        self::assertNull(LikelyHop::inLanding('shop.example'));
    }
}
