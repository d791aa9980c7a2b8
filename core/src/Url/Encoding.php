<?php

declare(strict_types=1);

namespace Vestigon\Core\Url;

/** Percent-encoding of values. */
final class Encoding
{
    /**
     * RFC 3986 §2 percent-encoding of the UTF-8 bytes: only the unreserved characters (ALPHA DIGIT - . _ ~) stay, hex
     * in upper case.
     *
     * @param int $times how often the encoding is applied, one on the other; 0 leaves the text alone
     * @param bool $plusForSpace the first pass writes a space as `+` (what HTML forms do) in place of `%20`
     */
    public static function encode(string $text, int $times = 1, bool $plusForSpace = false): string
    {
        if ($times < 1) {
            return $text;
        }
        $text = rawurlencode($text);
        if ($plusForSpace) {
            $text = str_replace('%20', '+', $text);
        }
        while (--$times > 0) {
            $text = rawurlencode($text);
        }

        return $text;
    }
}
