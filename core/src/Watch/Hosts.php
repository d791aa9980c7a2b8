<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** Hosts as they are named and met: case, port and a leading `www.` do not matter. */
final class Hosts
{
    /** Of an address with any scheme; a bracketed address is one host. Empty: it names none. */
    public static function of(string $url): string
    {
        return preg_match('~^[a-z][a-z0-9+.-]*://(?:[^/?#@]*@)?(\[[^\]/?#]*\]|[^/?#:]*)~i', $url, $m) === 1
            ? self::plain($m[1])
            : '';
    }

    public static function plain(string $host): string
    {
        $host = strtolower($host);

        return str_starts_with($host, 'www.') ? substr($host, 4) : $host;
    }

    /**
     * The host of one's own that somebody has come from to another one.
     *
     * @param list<string> $own as `fits` takes them
     * @return string as `of` gives it; empty: nobody has
     */
    public static function goneOnFrom(string $referrer, string $page, array $own): string
    {
        $from = self::of($referrer);
        $to = self::of($page);

        return $from !== $to && self::isOneOf($own, $from) && self::isOneOf($own, $to) ? $from : '';
    }

    /**
     * @param list<string> $own as `fits` takes them
     * @param string $host as `of` gives it; empty is none of them
     */
    public static function isOneOf(array $own, string $host): bool
    {
        foreach ($host === '' ? [] : $own as $pattern) {
            if (self::fits($pattern, $host)) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param string $pattern a host, or `*.host`: all that stand below it, and itself
     * @param string $host as `of` gives it
     */
    public static function fits(string $pattern, string $host): bool
    {
        if (str_starts_with($pattern, '*.')) {
            $above = self::plain(substr($pattern, 2));

            return $host === $above || str_ends_with($host, ".{$above}");
        }

        return $host === self::plain($pattern);
    }
}
