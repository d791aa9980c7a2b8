<?php

declare(strict_types=1);

namespace Vestigon\Redirector;

/**
 * Answers short addresses: 302 to exactly what was agreed on, 404 where there is none, 410 after its end, 503 where the
 * database is away and nobody has asked for it before (RFC 9110, sections 15.4.3, 15.5.5, 15.5.11, 15.6.4).
 */
final readonly class Redirector
{
    private const AWAY_SECONDS = 5;

    /** @param \Closure(string): bool $isProgram by the name that it gives itself */
    public function __construct(
        private Known $known,
        private Database $database,
        private Tally $tally,
        private \Closure $isProgram,
    ) {}

    /**
     * @param string $query what was asked for behind the code
     * @return array{int, array<string, string>, int|null} status, headers, and the link that was opened
     */
    public function answer(string $method, string $host, string $code, string $query, int $now): array
    {
        if ($method !== 'GET' && $method !== 'HEAD') {
            return [405, ['Allow' => 'GET, HEAD'], null];
        }
        $code = strtolower($code);
        try {
            $target = $this->target($this->host(strtolower($host), $now), $code, $now);
        } catch (\PDOException) {
            return [503, ['Retry-After' => (string) self::AWAY_SECONDS], null];
        }
        if ($target === null) {
            return [404, [], null];
        }
        if ($target->isGone || ($target->ends !== null && $target->ends <= $now)) {
            return [410, [], null];
        }

        return [
            302,
            [
                'Location' => $target->forwards && $query !== '' ? self::joined($target->url, $query) : $target->url,
                'Cache-Control' => 'private, max-age=0',
            ],
            $method === 'GET' ? $target->link : null,
        ];
    }

    /** Counts a link that was opened; nobody has to wait for it. */
    public function opened(int $link, string $agent, int $now): void
    {
        $this->tally->opened($link, ($this->isProgram)($agent), $now);
    }

    /** A client's own host; all others are this installation's. */
    private function host(string $host, int $now): string
    {
        $hosts = $this->known->hosts($now);
        if ($hosts === null) {
            try {
                $this->known->keepHosts($hosts = $this->database->hosts(), $now);
            } catch (\PDOException) {
                $hosts = $this->known->hosts($now, evenIfOld: true) ?? [];
            }
        }

        return in_array($host, $hosts, true) ? $host : '';
    }

    /** @throws \PDOException it is neither known nor can it be asked for */
    private function target(string $host, string $code, int $now): ?Target
    {
        $known = $this->known->target($host, $code);
        if ($known !== null && $this->known->isFresh($known, $now)) {
            return $known;
        }
        try {
            $target = $this->database->target($host, $code, $now);
        } catch (\PDOException $e) {
            return $known ?? throw $e;
        }
        if ($target === null) {
            $this->known->forget($host, $code);
        } else {
            $this->known->keep($host, $code, $target);
        }

        return $target;
    }

    /** Behind the page's own query, before its fragment. */
    private static function joined(string $url, string $query): string
    {
        require_once dirname(__DIR__, 2).'/core/src/Url/Query.php';

        return \Vestigon\Core\Url\Query::join($url, (string) preg_replace('~[\s#]+~', '', $query));
    }
}
