<?php

declare(strict_types=1);

namespace Vestigon\Core\Url;

/** Makes any bytes valid UTF-8. */
final class Utf8
{
    /**
     * One well-formed character, else the longest start of one, else one byte (Unicode, table 3-7 and "maximal
     * subpart").
     */
    private const CHARACTER =
        '/(?<good>[\x00-\x7F]|[\xC2-\xDF][\x80-\xBF]|\xE0[\xA0-\xBF][\x80-\xBF]|[\xE1-\xEC\xEE\xEF][\x80-\xBF]{2}'
        .'|\xED[\x80-\x9F][\x80-\xBF]|\xF0[\x90-\xBF][\x80-\xBF]{2}'
        .'|[\xF1-\xF3][\x80-\xBF]{3}|\xF4[\x80-\x8F][\x80-\xBF]{2})'
        .'|\xE0[\xA0-\xBF]|[\xE1-\xEC\xEE\xEF][\x80-\xBF]|\xED[\x80-\x9F]|\xF0[\x90-\xBF][\x80-\xBF]?'
        .'|[\xF1-\xF3][\x80-\xBF]{1,2}|\xF4[\x80-\x8F][\x80-\xBF]?|[\x80-\xFF]/';

    /** Each ill-formed sequence becomes one U+FFFD, as the WHATWG Encoding Standard's decoder does. */
    public static function mended(string $bytes): string
    {
        if (mb_check_encoding($bytes, 'UTF-8')) {
            return $bytes;
        }

        return (string) preg_replace_callback(
            self::CHARACTER,
            static fn (array $m): string => ($m['good'] ?? '') !== '' ? $m['good'] : "\u{FFFD}",
            $bytes,
        );
    }
}
