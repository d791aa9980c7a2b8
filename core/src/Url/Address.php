<?php

declare(strict_types=1);

namespace Vestigon\Core\Url;

/** The part of a URL that says where it leads. */
final class Address
{
    public static function isWeb(string $url): bool
    {
        return str_starts_with($url, 'https://') || str_starts_with($url, 'http://');
    }

    /** The host without user and port, lower case (RFC 3986 §3.2); empty if it is no web address. */
    public static function host(string $url): string
    {
        return preg_match('~^https?://(?:[^/?#@]*@)?(\[[^\]/?#]*\]|[^/?#:]*)~', $url, $m) === 1
            ? strtolower($m[1])
            : '';
    }
}
