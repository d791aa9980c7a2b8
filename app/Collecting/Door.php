<?php

namespace App\Collecting;

use Vestigon\Core\Watch\Hosts;

/**
 * A short way in for what pages report, without the application's start: pages that were seen, of a site that is
 * known, all of them fit to be taken. Whatever is anything else goes the whole way, and is told there what is wrong.
 */
final readonly class Door
{
    /**
     * @param \Closure(string): ?Site $known by its key; the whole way leaves it behind
     * @param \Closure(string): int $count how often this word was counted in this minute, with this time
     * @param \Closure(string): bool $isProgram by the name that it gives itself
     * @param \Closure(list<array<string, mixed>>): int $keep how many rows of Row's were not known
     */
    public function __construct(
        private \Closure $known,
        private \Closure $count,
        private \Closure $isProgram,
        private \Closure $keep,
    ) {}

    /**
     * @param string $address whose it is
     * @param int $now in milliseconds
     * @return array{int, array<string, string>, array<string, mixed>}|null status, headers, and what is told; null: it
     *     goes the whole way
     *
     * @throws \PDOException nothing of it was kept
     */
    public function answer(
        string $key,
        string $origin,
        string $agent,
        string $address,
        string $content,
        int $now,
    ): ?array {
        $site = ($this->known)($key);
        if ($site === null) {
            return null;
        }
        if (
            ($this->count)("site {$key}") > $site->limits->ofSite
            || ($this->count)("address {$address}") > $site->limits->ofAddress
        ) {
            $wait = (string) (60 - intdiv($now, 1000) % 60);

            return [429, ['Retry-After' => $wait], ['message' => 'Too many reports in this minute.']];
        }
        if (
            ! Hosts::isOneOf($site->hosts, Hosts::of($origin))
            || strlen($content) > $site->limits->bytes
            || ($this->isProgram)($agent)
        ) {
            return null;
        }
        $report = Report::read($site, json_decode($content, true, 16), $now);
        if (! $report->isPlain()) {
            return null;
        }
        $taken = ($this->keep)(Row::all($site, $report->items));

        return [
            202,
            ['Access-Control-Allow-Origin' => $origin, 'Vary' => 'Origin'],
            ['refused' => (object) [], 'taken' => $taken],
        ];
    }
}
