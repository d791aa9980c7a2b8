<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

/** Finds for each pair of an arrival the stretch of the click URL that its value was sent in. */
final class Provenance
{
    /** Marks before a key and between key and value, as they stand or encoded any number of times. */
    private const BEFORE = '(?:[?&]|%(?:25)*(?:3F|26))';

    private const BETWEEN = '(?:=|%(?:25)*3D)';

    /** @return list<Origin|null> in the order of the arrival; null: it was not in the click URL, a hop has added it */
    public static function of(Trace $trace): array
    {
        $url = $trace->clickUrl ?? '';
        $seen = [];
        $origins = [];
        foreach ($trace->arrival as [$key]) {
            $n = $seen[$key] = ($seen[$key] ?? -1) + 1;
            $pattern = '~'.self::BEFORE.preg_quote(rawurlencode($key), '~').self::BETWEEN.'~i';
            $found = preg_match_all($pattern, $url, $m, PREG_OFFSET_CAPTURE) > $n ? $m[0][$n] : null;
            $origins[] = $found === null ? null : self::at($trace, $found[1] + strlen($found[0]));
        }

        return $origins;
    }

    private static function at(Trace $trace, int $offset): ?Origin
    {
        $last = null;
        foreach ($trace->segments as $segment) {
            if ($segment->text !== '') {
                if ($offset < strlen($segment->text)) {
                    // a value that ended where the next key begins was empty: it belongs to what wrote its key
                    return $offset === 0
                        && $last !== null
                        && preg_match('~^(?:&|%(?:25)*26|#)~i', $segment->text) === 1
                        ? $last
                        : $segment->origin;
                }
                $offset -= strlen($segment->text);
                $last = $segment->origin;
            }
        }

        return $last;
    }
}
