<?php

namespace App\Clicks;

use Illuminate\Http\Client\ConnectionException;
use Illuminate\Http\Client\Response;
use Illuminate\Support\Facades\Http;

/** Follows a click over real redirects to its page, as a browser would, within limits of hops, time and size. */
final readonly class Follower
{
    private const MOST_HOPS = 10;

    private const SECONDS_A_STEP = 5;

    private const SECONDS = 20;

    private const BYTES = 512 * 1024;

    public function __construct(private Gate $gate) {}

    /** @return non-empty-list<Step> each URL that was asked for; the last one is the page, or where it went wrong */
    public function follow(string $url): array
    {
        $steps = [];
        $until = microtime(true) + self::SECONDS;
        for ($hops = 0; ; $hops++) {
            [$step, $next] = $this->ask($url, max(0.1, min(self::SECONDS_A_STEP, $until - microtime(true))));
            $steps[] = $step;
            if ($next === null) {
                return $steps;
            }
            if ($hops === self::MOST_HOPS || microtime(true) >= $until) {
                $why = $hops === self::MOST_HOPS ? 'More than '.self::MOST_HOPS.' redirects: it goes on from here to ' : 'The click took more than '.self::SECONDS.' seconds: it goes on from here to ';
                $steps[count($steps) - 1] = new Step($step->url, $step->status, $step->ms, "{$why}{$next}.");

                return $steps;
            }
            $url = $next;
        }
    }

    /** @return array{Step, string|null} and where it leads on */
    private function ask(string $url, float $seconds): array
    {
        ['refused' => $refused, 'resolve' => $resolve] = $this->gate->ask($url);
        if ($refused !== null) {
            return [new Step($url, null, 0, "It was not followed: the redirect {$refused}."), null];
        }
        $start = microtime(true);
        $took = static fn (): int => (int) ((microtime(true) - $start) * 1000);
        try {
            $response = Http::withOptions(['curl' => [CURLOPT_RESOLVE => [$resolve], CURLOPT_PROTOCOLS => CURLPROTO_HTTP | CURLPROTO_HTTPS], 'stream' => false, 'progress' => self::limit(...), 'proxy' => ''])
                ->withUserAgent('Vestigon test click')->connectTimeout(3)->timeout($seconds)->withoutRedirecting()->get($url);
        } catch (ConnectionException|\RuntimeException $e) {
            $why = str_contains($e->getMessage(), 'too large') ? 'its answer is larger than '.(self::BYTES / 1024).' KB' : 'it did not answer within '.round($seconds, 1).' seconds';

            return [new Step($url, null, $took(), ucfirst("{$why}.")), null];
        }

        return self::read($url, $response, $took());
    }

    /** @return array{Step, string|null} */
    private static function read(string $url, Response $response, int $ms): array
    {
        $status = $response->status();
        $location = $response->header('Location');
        if ($response->redirect() && $location !== '') {
            return [new Step($url, $status, $ms, null), self::absolute($url, $location)];
        }

        return [new Step($url, $status, $ms, $status >= 400 || $response->redirect() ? "It answered {$status}." : null), null];
    }

    /** @throws \RuntimeException the answer is too large */
    private static function limit(int $total, int $loaded): void
    {
        if (max($total, $loaded) > self::BYTES) {
            throw new \RuntimeException('too large');
        }
    }

    /** RFC 3986, section 5: a redirect may be relative to where it comes from. */
    private static function absolute(string $from, string $to): string
    {
        return (string) \GuzzleHttp\Psr7\UriResolver::resolve(new \GuzzleHttp\Psr7\Uri($from), new \GuzzleHttp\Psr7\Uri($to));
    }
}
