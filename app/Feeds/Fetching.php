<?php

namespace App\Feeds;

use App\Clicks\Gate;
use App\Models\Feed;
use GuzzleHttp\Psr7\Uri;
use GuzzleHttp\Psr7\UriResolver;
use Illuminate\Support\Facades\File;
use Vestigon\Core\Document\UnusableInput;

/**
 * Fetches a list from its address, if it has changed there (RFC 9110, section 13: If-None-Match, If-Modified-Since),
 * within limits of size, time and redirects, and never from a private address.
 */
final readonly class Fetching
{
    private const REDIRECTS = 5;

    private const SECONDS = 300;

    private const CONNECT_SECONDS = 10;

    public function __construct(private Arriving $arriving) {}

    /** @return bool has something new come? */
    public function fetch(Feed $feed): bool
    {
        $feed->update([
            'fetched_at' => now(),
            'next_at' => $feed->every_minutes === null ? null : now()->addMinutes($feed->every_minutes),
        ]);
        File::ensureDirectoryExists($feed->folder());
        $path = "{$feed->folder()}/fetched".bin2hex(random_bytes(4));
        try {
            $answer = $this->ask($feed, (string) $feed->address, $path);
            if ($answer['status'] === 304) {
                $feed->update(['problem' => null]);

                return false;
            }
            if ($answer['status'] !== 200) {
                throw new UnusableInput("its host answered {$answer['status']}");
            }
            $copy = $this->arriving->take($feed, $path);
            $feed->refresh()->update([
                'etag' => $answer['etag'],
                'modified' => $answer['modified'],
                'problem' => $copy->why,
            ]);

            return true;
        } catch (UnusableInput $e) {
            $feed->refuse($e);

            return false;
        } finally {
            File::delete($path);
        }
    }

    /**
     * @return array{status: int, etag: string|null, modified: string|null}
     *
     * @throws UnusableInput
     */
    private function ask(Feed $feed, string $url, string $path): array
    {
        $until = microtime(true) + self::SECONDS;
        $gate = new Gate($feed->client->hosts ?? [], 'which is none of this client’s hosts');
        for ($n = 0; $n <= self::REDIRECTS; $n++) {
            ['refused' => $refused, 'resolve' => $resolve] = $gate->ask($url);
            if ($refused !== null) {
                throw new UnusableInput("it was not fetched: the address {$refused}");
            }
            $answer = self::one($feed, $url, (string) $resolve, $path, $until - microtime(true));
            if ($answer['status'] < 300 || $answer['status'] === 304 || $answer['location'] === null) {
                return $answer;
            }
            try {
                $url = (string) UriResolver::resolve(new Uri($url), new Uri($answer['location']));
            } catch (\InvalidArgumentException) {
                throw new UnusableInput('its host redirects to what is no address');
            }
        }
        throw new UnusableInput('its host redirects more than '.self::REDIRECTS.' times');
    }

    /**
     * @return array{status: int, location: string|null, etag: string|null, modified: string|null}
     *
     * @throws UnusableInput
     */
    private static function one(Feed $feed, string $url, string $resolve, string $path, float $seconds): array
    {
        $headers = [];
        $most = (int) config('limits.feed_bytes');
        $bytes = 0;
        $out = fopen($path, 'wb') ?: throw new \RuntimeException("{$path} can't be written");
        $curl = curl_init();
        curl_setopt_array($curl, [
            CURLOPT_URL => $url,
            CURLOPT_RESOLVE => [$resolve],
            CURLOPT_PROTOCOLS => CURLPROTO_HTTP | CURLPROTO_HTTPS,
            CURLOPT_FOLLOWLOCATION => false,
            CURLOPT_PROXY => '',
            CURLOPT_USERAGENT => 'Vestigon',
            CURLOPT_HTTPHEADER => $feed->kept?->setRelation('feed', $feed)->isThere() === true
                ? array_values(array_filter([
                    $feed->etag === null ? null : "If-None-Match: {$feed->etag}",
                    $feed->modified === null ? null : "If-Modified-Since: {$feed->modified}",
                ]))
                : [],
            CURLOPT_CONNECTTIMEOUT => self::CONNECT_SECONDS,
            CURLOPT_TIMEOUT_MS => (int) max(1, $seconds * 1000),
            CURLOPT_HEADERFUNCTION => static function (\CurlHandle $curl, string $line) use (&$headers): int {
                if (str_contains($line, ':') && count($headers) < 100) {
                    [$name, $value] = explode(':', $line, 2);
                    $headers[strtolower(trim($name))] = mb_scrub(trim($value));
                }

                return strlen($line);
            },
            CURLOPT_WRITEFUNCTION => static function (\CurlHandle $curl, string $some) use ($out, &$bytes, $most): int {
                $bytes += strlen($some);

                return $bytes > $most ? -1 : (int) fwrite($out, $some);
            },
        ]);
        $went = curl_exec($curl);
        fclose($out);
        $status = (int) curl_getinfo($curl, CURLINFO_RESPONSE_CODE);
        if ($bytes > $most) {
            throw new UnusableInput('the list is larger than '.($most >> 20).' MB');
        }
        if (curl_errno($curl) === CURLE_OPERATION_TIMEDOUT) {
            throw new UnusableInput('its host was not done within '.self::SECONDS.' seconds');
        }
        if ($went === false || $status === 0) {
            throw new UnusableInput('its host gave no answer that makes sense, or broke off');
        }

        return [
            'status' => $status,
            'location' => $headers['location'] ?? null,
            'etag' => isset($headers['etag']) ? mb_substr($headers['etag'], 0, 300) : null,
            'modified' => isset($headers['last-modified']) ? mb_substr($headers['last-modified'], 0, 100) : null,
        ];
    }
}
