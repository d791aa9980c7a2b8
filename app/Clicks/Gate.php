<?php

namespace App\Clicks;

/**
 * Decides where the server may send requests that people wish for (test clicks, adapters): to hosts that are allowed,
 * never to private addresses.
 *
 * The address is looked up once and the request goes to that very address, so that a name can't lead elsewhere the
 * second time.
 */
final readonly class Gate
{
    /**
     * @param list<string> $hosts those that are allowed; each with all below it
     * @param string $mayNot what is said of others
     */
    public function __construct(
        private array $hosts,
        private string $mayNot = 'where this client’s test clicks may not go',
    ) {}

    /** @return array{refused: string|null, resolve: string|null} why not; and the address to use, as curl wants it */
    public function ask(string $url): array
    {
        $parts = parse_url($url);
        $host = strtolower($parts['host'] ?? '');
        $port = $parts['port'] ?? (($parts['scheme'] ?? '') === 'https' ? 443 : 80);
        $refused = match (true) {
            ! in_array($parts['scheme'] ?? '', ['http', 'https'], true) || $host === '' => 'is no web address',
            isset($parts['user']) || isset($parts['pass']) => 'has a sign-in in it',
            ! $this->allows($host) => "leads to {$host}, {$this->mayNot}",
            default => null,
        };
        if ($refused !== null || $this->isNear($host, $port)) {
            return ['refused' => $refused, 'resolve' => $refused === null ? "{$host}:{$port}:127.0.0.1" : null];
        }
        if (! in_array($port, [80, 443], true)) {
            return ['refused' => "asks for port {$port}; only 80 and 443 are allowed", 'resolve' => null];
        }
        $address = filter_var($host, FILTER_VALIDATE_IP) === false ? (gethostbynamel($host) ?: [null])[0] : $host;

        return match (true) {
            $address === null => ['refused' => "leads to {$host}, which can’t be found", 'resolve' => null],
            filter_var(
                $address,
                FILTER_VALIDATE_IP,
                FILTER_FLAG_NO_PRIV_RANGE | FILTER_FLAG_NO_RES_RANGE | FILTER_FLAG_GLOBAL_RANGE,
            ) === false => ['refused' => "leads to {$host}, which is a private address", 'resolve' => null],
            default => ['refused' => null, 'resolve' => "{$host}:{$port}:{$address}"],
        };
    }

    private function allows(string $host): bool
    {
        foreach ($this->hosts as $allowed) {
            if ($host === $allowed || str_ends_with($host, ".{$allowed}")) {
                return true;
            }
        }

        return false;
    }

    /** One of this machine, allowed by name. */
    private function isNear(string $host, int $port): bool
    {
        return in_array("{$host}:{$port}", config('platforms.near'), true);
    }
}
