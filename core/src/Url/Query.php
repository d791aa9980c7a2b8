<?php

declare(strict_types=1);

namespace Vestigon\Core\Url;

/** The query part of a URL kept as text: nothing that is already there is ever written anew. */
final class Query
{
    /**
     * Puts a query behind a URL's own one, before the fragment. Existing pieces and the fragment stay byte for byte.
     */
    public static function join(string $url, string $query): string
    {
        $query = ltrim($query, '?&');
        if ($query === '') {
            return $url;
        }
        $end = self::end($url);

        return substr($url, 0, $end).self::separator($url, $end).$query.substr($url, $end);
    }

    /** Where the query ends: the offset of the first `#`, or of the end. */
    public static function end(string $url): int
    {
        return self::before($url, '#');
    }

    /** How many bytes stand before the first mark; all of them, if there is none. */
    public static function before(string $text, string $mark): int
    {
        $at = strpos($text, $mark);

        return $at === false ? strlen($text) : $at;
    }

    /** What stands between the first $end bytes of a URL and a piece added to them: nothing, `&` or `?`. */
    public static function separator(string $url, int $end): string
    {
        $last = $end > 0 ? $url[$end - 1] : '';
        if ($last === '?' || $last === '&') {
            return '';
        }

        return self::before($url, '?') < $end ? '&' : '?';
    }

    /** The text between the first `?` and the first `#`; null if there is no query. */
    public static function of(string $url): ?string
    {
        $end = self::end($url);
        $mark = self::before($url, '?');

        return $mark < $end ? substr($url, $mark + 1, $end - $mark - 1) : null;
    }

    /**
     * The pairs that a page reads, in order, duplicates kept: the WHATWG `application/x-www-form-urlencoded` parser.
     *
     * @return list<array{string, string}> key and value
     */
    public static function read(string $url): array
    {
        $query = self::of($url);
        if ($query === null) {
            return [];
        }
        // the split is at ASCII bytes, so all pieces are good UTF-8 if the whole is
        $mend = ! mb_check_encoding(urldecode($query), 'UTF-8');
        $pairs = [];
        foreach (explode('&', $query) as $piece) {
            if ($piece !== '') {
                $pair = explode('=', $piece, 2);
                $key = urldecode($pair[0]);
                $value = isset($pair[1]) ? urldecode($pair[1]) : '';
                $pairs[] = $mend ? [Utf8::mended($key), Utf8::mended($value)] : [$key, $value];
            }
        }

        return $pairs;
    }

    /**
     * What a page that takes the first of each key has of it.
     *
     * @return array<string, string> key → value
     */
    public static function first(string $url): array
    {
        $first = [];
        foreach (self::read($url) as [$key, $value]) {
            $first[$key] ??= $value;
        }

        return $first;
    }

    /**
     * The same pairs with each value as it stands in the URL.
     *
     * @return list<array{string, string}> key, as it is read, and value
     */
    public static function sent(string $url): array
    {
        $pairs = [];
        foreach (explode('&', self::of($url) ?? '') as $piece) {
            if ($piece !== '') {
                $pair = explode('=', $piece, 2);
                $pairs[] = [self::decoded($pair[0]), $pair[1] ?? ''];
            }
        }

        return $pairs;
    }

    /** One name or value as the urlencoded parser reads it: `+` is a space, lone percent signs stay. */
    public static function decoded(string $text): string
    {
        return Utf8::mended(urldecode($text));
    }

    /** One name or value as the WHATWG urlencoded serializer writes it. */
    public static function formEncoded(string $text): string
    {
        return str_replace(['%20', '%2A', '~'], ['+', '*', '%7E'], rawurlencode(Utf8::mended($text)));
    }
}
