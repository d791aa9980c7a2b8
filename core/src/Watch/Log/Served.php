<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Log;

/** A request that a web server has answered, as its log tells of it. */
final readonly class Served
{
    /**
     * @param int $at in milliseconds
     * @param string $target what was asked for: a path with its query, or a whole address
     * @param string $host as asked for; empty: the log does not say
     * @param string $who the address that asked; nothing that is kept
     */
    public function __construct(
        public int $at,
        public string $method,
        public string $target,
        public int $status,
        public string $referrer = '',
        public string $agent = '',
        public string $host = '',
        public string $who = '',
    ) {}

    /**
     * The address of what was asked for.
     *
     * @param string $host where the log does not say at which
     * @return string|null null: it is none
     */
    public function url(string $host): ?string
    {
        if (preg_match('~^https?://[^/?#]~i', $this->target) === 1) {
            return $this->target;
        }
        $at = strtolower($this->host === '' ? $host : $this->host);

        return str_starts_with($this->target, '/') && $at !== '' ? "https://{$at}{$this->target}" : null;
    }

    /** Was it a page that somebody saw? Pictures, styles and scripts are none (common practice, no source). */
    public function isPage(): bool
    {
        $path = strtolower((string) preg_replace('~[?#].*$~s', '', $this->target));

        return $this->method === 'GET'
            && (($this->status >= 200 && $this->status < 300) || $this->status === 304)
            && preg_match('~\.(?!html?$|php$|aspx?$|jsp$)[a-z][a-z0-9]{1,7}$~', $path) !== 1;
    }
}
