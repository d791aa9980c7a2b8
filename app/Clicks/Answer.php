<?php

namespace App\Clicks;

/**
 * What a web server answers to one request, as far as a test click needs it. Reading ends as soon as a limit is passed.
 */
final readonly class Answer
{
    private function __construct(
        public ?int $status,
        public ?string $location,
        public int $ms,
        public ?string $problem,
    ) {}

    /**
     * @param string $resolve host, port and address, as curl wants it: the request goes nowhere else
     * @param float $seconds for all of it
     */
    public static function to(string $url, string $resolve, float $seconds): self
    {
        $headers = $body = 0;
        $location = $over = null;
        $curl = curl_init();
        curl_setopt_array($curl, [
            CURLOPT_URL => $url,
            CURLOPT_RESOLVE => [$resolve],
            CURLOPT_PROTOCOLS => CURLPROTO_HTTP | CURLPROTO_HTTPS,
            CURLOPT_FOLLOWLOCATION => false,
            CURLOPT_PROXY => '',
            CURLOPT_USERAGENT => 'Vestigon test click',
            CURLOPT_CONNECTTIMEOUT_MS => (int) min(3000, $seconds * 1000),
            CURLOPT_TIMEOUT_MS => (int) ($seconds * 1000),
            CURLOPT_HEADERFUNCTION => static function (\CurlHandle $curl, string $line) use (
                &$headers,
                &$location,
                &$over,
            ): int {
                $headers += strlen($line);
                if ($headers > Follower::HEADER_BYTES) {
                    $over = 'The head of its answer is larger than '.Follower::HEADER_BYTES / 1024 .' KB.';

                    return -1;
                }
                if (preg_match('/^location:\s*(.*?)\s*$/is', $line, $found) === 1) {
                    $location ??= $found[1];
                }

                return strlen($line);
            },
            CURLOPT_WRITEFUNCTION => static function (\CurlHandle $curl, string $some) use (&$body, &$over): int {
                $body += strlen($some);
                $over =
                    $body > Follower::BYTES
                        ? 'Its answer is larger than '.Follower::BYTES / 1024 .' KB.'
                        : null;

                return $over === null ? strlen($some) : -1;
            },
        ]);
        $start = microtime(true);
        $went = curl_exec($curl);
        $ms = (int) ((microtime(true) - $start) * 1000);
        $status = curl_getinfo($curl, CURLINFO_RESPONSE_CODE) ?: null;
        $timedOut = curl_errno($curl) === CURLE_OPERATION_TIMEDOUT;

        return new self(
            $status,
            $location === '' ? null : $location,
            $ms,
            match (true) {
                $over !== null => $over,
                $timedOut => 'It did not answer within '.round($seconds, 1).' seconds.',
                $went === false || $status === null => 'It gave no answer that makes sense.',
                default => null,
            },
        );
    }
}
