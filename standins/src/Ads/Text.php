<?php

declare(strict_types=1);

namespace Standins\Ads;

/** What the platforms' servers do to texts. */
final class Text
{
    /** Puts a query behind a URL's own one, before the fragment. */
    public static function add(string $url, string $query): string
    {
        $query = (string) preg_replace('/^[?&]+/', '', $query);
        if ($query === '') {
            return $url;
        }
        [$front, $fragment] = array_pad(explode('#', $url, 2), 2, null);
        $glue =
            preg_match('/[?&]$/', (string) $front) === 1 ? '' : (str_contains((string) $front, '?') ? '&' : '?');

        return $front.$glue.$query.($fragment === null ? '' : "#{$fragment}");
    }

    /** What stands behind the fragment's mark, mark included; empty if there is none. */
    public static function fragment(string $url): string
    {
        return (string) strstr($url, '#');
    }

    /**
     * Fills what stands between marks. Marks that differ may be nested, equal ones close with the next.
     *
     * @param \Closure(string, bool): ?string $token gives what a body becomes, told whether it is the very first thing
     *     of the text; null: it stays as typed
     */
    public static function fill(string $text, string $open, string $close, \Closure $token): string
    {
        $out = '';
        for ($i = 0, $n = strlen($text); $i < $n;) {
            $end = substr($text, $i, strlen($open)) === $open ? self::closing($text, $i, $open, $close) : null;
            if ($end === null) {
                $out .= $text[$i++];

                continue;
            }
            $from = $i + strlen($open);
            $out .=
                $token(substr($text, $from, $end - $from), $i === 0)
                ?? substr($text, $i, $end + strlen($close) - $i);
            $i = $end + strlen($close);
        }

        return $out;
    }

    /** Percent-encoding, spaces as a plus. */
    public static function plus(string $value): string
    {
        return str_replace('%20', '+', rawurlencode($value));
    }

    private static function closing(string $text, int $at, string $open, string $close): ?int
    {
        if ($open === $close) {
            $end = strpos($text, $close, $at + strlen($open));

            return $end === false ? null : $end;
        }
        for ($i = $at, $depth = 0, $n = strlen($text); $i < $n; $i++) {
            if (substr($text, $i, strlen($open)) === $open) {
                $depth++;
                $i += strlen($open) - 1;
            } elseif (substr($text, $i, strlen($close)) === $close) {
                if (--$depth === 0) {
                    return $i;
                }
                $i += strlen($close) - 1;
            }
        }

        return null;
    }
}
