<?php

namespace App\Collecting;

/**
 * Sites that have reported of late, and how often they did, in memory that the web server's processes share. Where
 * there is none, no site is known.
 */
final class KnownSites
{
    /** So many seconds what is known is taken for what is so. */
    private const FRESH = 10;

    private const MINUTE = 60;

    public static function at(string $key): ?Site
    {
        $site = apcu_fetch("reporting {$key}");

        return $site instanceof Site ? $site : null;
    }

    public static function keep(string $key, Site $site): void
    {
        apcu_store("reporting {$key}", $site, self::FRESH);
    }

    public static function forget(string $key): void
    {
        apcu_delete("reporting {$key}");
    }

    /** @return int how often this word was counted in this minute, with this time */
    public static function count(string $word, int $seconds): int
    {
        return (int) apcu_inc('reports '.intdiv($seconds, self::MINUTE)." {$word}", ttl: 2 * self::MINUTE);
    }
}
