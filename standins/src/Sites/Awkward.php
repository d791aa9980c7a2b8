<?php

declare(strict_types=1);

namespace Standins\Sites;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * A site that answers as no site should: GET /redirect?to=ANYTHING, /far?kb=N, /flood?mb=N, /packed?mb=N (gzip, small
 * on the line), /head?kb=N, /drip?seconds=N.
 */
final readonly class Awkward
{
    public function handle(Request $request): Response
    {
        $n = $request->query->getInt('mb') ?: $request->query->getInt('kb') ?: $request->query->getInt('seconds');

        return match ($request->getPathInfo()) {
            '/redirect' => new Response('', 302, ['Location' => $request->query->getString('to')]),
            '/far' => new Response('', 302, ['Location' => '/'.str_repeat('a', $n << 10)]),
            '/flood' => self::stream(static fn () => print str_repeat('x', 1 << 20), $n),
            '/packed' => new Response((string) gzencode(str_repeat("\0", $n << 20)), 200, [
                'Content-Encoding' => 'gzip',
                'Content-Type' => 'text/html',
            ]),
            '/head' => new Response(
                '',
                200,
                array_combine(
                    array_map(static fn (int $i): string => "X-Filler-{$i}", range(1, $n)),
                    array_fill(0, $n, str_repeat('x', 1000)),
                ),
            ),
            '/drip' => self::stream(static function (): void {
                echo '.';
                sleep(1);
            }, $n),
            default => new Response('', 404),
        };
    }

    /** @param \Closure(): mixed $once */
    private static function stream(\Closure $once, int $times): Response
    {
        return new StreamedResponse(
            static function () use ($once, $times): void {
                for ($i = 0; $i < $times && connection_aborted() === 0; $i++) {
                    $once();
                    @ob_flush();
                    flush();
                }
            },
            200,
            ['X-Accel-Buffering' => 'no'],
        );
    }
}
