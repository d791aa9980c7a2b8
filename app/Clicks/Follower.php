<?php

namespace App\Clicks;

use GuzzleHttp\Psr7\Exception\MalformedUriException;
use GuzzleHttp\Psr7\Uri;
use GuzzleHttp\Psr7\UriResolver;

/**
 * Follows a click over real redirects to its page, as a browser would, within limits of hops, time and size that hold
 * while it reads.
 */
final readonly class Follower
{
    public const MOST_HOPS = 10;

    public const SECONDS_A_STEP = 5;

    public const SECONDS = 20;

    /** Of an answer, as it comes over the line; nothing is unpacked. */
    public const BYTES = 512 * 1024;

    public const HEADER_BYTES = 16 * 1024;

    public const LONGEST_URL = 16_000;

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
                $why =
                    $hops === self::MOST_HOPS
                        ? 'More than '.self::MOST_HOPS.' redirects: it goes on from here to '
                        : 'The click took more than '.self::SECONDS.' seconds: it goes on from here to ';
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
        $answer = Answer::to($url, (string) $resolve, $seconds);
        if ($answer->problem !== null) {
            return [new Step($url, $answer->status, $answer->ms, $answer->problem), null];
        }
        $redirects = $answer->status >= 300 && $answer->status < 400 && $answer->location !== null;

        return $redirects
            ? $this->redirect($url, $answer)
            : [
                new Step(
                    $url,
                    $answer->status,
                    $answer->ms,
                    $answer->status >= 300 ? "It answered {$answer->status}." : null,
                ),
                null,
            ];
    }

    /** @return array{Step, string|null} */
    private function redirect(string $url, Answer $answer): array
    {
        $to = (string) $answer->location;
        try {
            $next = mb_check_encoding($to, 'UTF-8') ? self::absolute($url, $to) : '';
        } catch (MalformedUriException|\InvalidArgumentException) {
            $next = '';
        }
        $why = match (true) {
            $next === '' => 'It answered with a redirect to what is no address: “'
                .mb_strimwidth(mb_scrub($to), 0, 200, '…')
                .'”.',
            strlen($next) > self::LONGEST_URL => 'It answered with a redirect to an address of more than '
                .number_format(self::LONGEST_URL)
                .' characters.',
            default => null,
        };

        return [new Step($url, $answer->status, $answer->ms, $why), $why === null ? $next : null];
    }

    /** RFC 3986, section 5: a redirect may be relative to where it comes from. */
    private static function absolute(string $from, string $to): string
    {
        return (string) UriResolver::resolve(new Uri($from), new Uri($to));
    }
}
