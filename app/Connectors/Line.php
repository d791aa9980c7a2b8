<?php

namespace App\Connectors;

use App\Clicks\Gate;
use Illuminate\Http\Client\ConnectionException;
use Illuminate\Http\Client\PendingRequest;
use Illuminate\Http\Client\Response;
use Illuminate\Support\Facades\Http;

/**
 * The line to one outside service: time limits, a few tries, and answers that are JSON objects or PlatformTrouble.
 *
 * The address comes from the configuration, or a gate says whether it may be asked, and at which number. Redirects are
 * not followed: a service can't send the server elsewhere.
 */
final readonly class Line
{
    private const TRIES = 3;

    /** Seconds; a platform that wants us to wait longer is left alone. */
    private const LONGEST_WAIT = 30;

    public function __construct(
        public string $title,
        private string $address,
        private ?Pace $reads = null,
        private ?Pace $writes = null,
        private ?Gate $gate = null,
    ) {}

    /**
     * @param array<string, mixed> $query
     * @return array<string, mixed>
     */
    public function get(string $path, array $query = [], ?string $token = null): array
    {
        return $this->answer(
            fn (PendingRequest $http): Response => $http->get($path, $query),
            $token,
            [],
            $this->reads,
        );
    }

    /**
     * @param array<string, mixed> $body
     * @param array<string, string> $headers
     * @param bool $writes does it write texts? Platforms limit that apart from reading
     * @return array<string, mixed>
     */
    public function post(
        string $path,
        array $body,
        ?string $token = null,
        array $headers = [],
        bool $writes = false,
    ): array {
        return $this->answer(
            fn (PendingRequest $http): Response => $http->post($path, $body),
            $token,
            $headers,
            $writes ? $this->writes : $this->reads,
        );
    }

    /**
     * @param \Closure(PendingRequest): Response $send
     * @param array<string, string> $headers
     * @return array<string, mixed>
     */
    private function answer(\Closure $send, ?string $token, array $headers, ?Pace $pace): array
    {
        for ($try = 1; $try <= self::TRIES; $try++) {
            try {
                $pace?->wait();

                return $this->once($send, $token, $headers);
            } catch (PlatformTrouble $trouble) {
                if (! $trouble->mayPass) {
                    throw $trouble;
                }
                if ($trouble->wait > self::LONGEST_WAIT) {
                    throw $trouble;
                }
                if ($try < self::TRIES) {
                    usleep((int) (($trouble->wait ?? 0) * 1_000_000));
                    usleep(
                        (int) (config('platforms.retry_pause_ms')
                            * 1000
                            * 2 ** ($try - 1)
                            * (0.75 + mt_rand(0, 500) / 1000)),
                    );
                }
            }
        }
        throw $trouble;
    }

    /**
     * @param \Closure(PendingRequest): Response $send
     * @param array<string, string> $headers
     * @return array<string, mixed>
     */
    private function once(\Closure $send, ?string $token, array $headers): array
    {
        $seconds = (float) config('platforms.timeout');
        $http = Http::baseUrl($this->address)
            ->withHeaders($headers)
            ->acceptJson()
            ->connectTimeout(3)
            ->timeout($seconds)
            ->withoutRedirecting()
            ->withOptions($this->guarded());
        try {
            $response = $send($token === null ? $http : $http->withToken($token));
        } catch (ConnectionException) {
            throw PlatformTrouble::silent($this->title, $seconds);
        }
        if ($response->status() === 429) {
            throw PlatformTrouble::busy($this->title, max(0.0, (float) $response->header('Retry-After')));
        }
        if ($response->status() >= 500) {
            throw PlatformTrouble::down($this->title, $response->status());
        }
        $json = json_decode($response->body(), true);
        if ($response->status() >= 400) {
            throw PlatformTrouble::refused(
                $this->title,
                is_string($json['error'] ?? null) ? $json['error'] : "HTTP {$response->status()}",
                $response->status() === 401 && $token !== null,
            );
        }
        if (! is_array($json)) {
            throw PlatformTrouble::nonsense($this->title, 'not JSON');
        }

        return $json;
    }

    /**
     * The name is looked up once, by the gate; the request goes to that very number.
     *
     * @return array<string, mixed> options of the request
     */
    private function guarded(): array
    {
        if ($this->gate === null) {
            return [];
        }
        ['refused' => $refused, 'resolve' => $resolve] = $this->gate->ask($this->address);
        if ($refused !== null) {
            throw PlatformTrouble::barred($this->title, $refused);
        }

        return ['curl' => [CURLOPT_RESOLVE => [$resolve]]];
    }
}
