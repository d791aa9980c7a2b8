<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** Instants as whole milliseconds since 1970-01-01T00:00Z, and as text (RFC 3339 §5.6). */
final class Instant
{
    private const FORM = '/^(\d{4}-\d\d-\d\d)[Tt ](\d\d):(\d\d):(\d\d)(?:\.(\d+))?(?:[Zz]|([+-])(\d\d):(\d\d))$/D';

    private const MINUTE = 60_000;

    /** @var array<string, int> the first milliseconds of minutes in UTC, by their text up to the seconds */
    private static array $minutes = [];

    /** @var array{int, string} the minute that was written last, with its text */
    private static array $minute = [PHP_INT_MIN, ''];

    /** @var array<string, int|null> the first millisecond of days in UTC; null: there is no such day */
    private static array $days = [];

    /** With any offset; what is finer than a millisecond is left out. Null: it is no instant. */
    public static function read(string $text): ?int
    {
        // of a million, most are in one form, and many of one minute
        $begin = substr($text, 0, 17);
        $rest = substr($text, 17);
        if (isset(self::$minutes[$begin]) && strlen($rest) === 7 && $rest[2] === '.' && $rest[6] === 'Z') {
            $seconds = substr($rest, 0, 2);
            $ms = substr($rest, 3, 3);
            if (ctype_digit($seconds.$ms) && $seconds < '60') {
                return self::$minutes[$begin] + (int) $seconds * 1000 + (int) $ms;
            }
        }
        $at = self::closely($text);
        if ($at !== null && $at >= 0 && str_ends_with($text, 'Z')) {
            self::$minutes = count(self::$minutes) > 5000 ? [] : self::$minutes;
            self::$minutes[$begin] = $at - $at % self::MINUTE;
        }

        return $at;
    }

    private static function closely(string $text): ?int
    {
        if (preg_match(self::FORM, $text, $m) !== 1) {
            return null;
        }
        $day = self::$days[$m[1]] ?? self::day($m[1]);
        $offset = isset($m[8]) ? ((int) $m[7] * 60 + (int) $m[8]) * ($m[6] === '-' ? -1 : 1) : 0;
        if ($day === null || $m[2] > '23' || $m[3] > '59' || $m[4] > '59' || abs($offset) >= 1440) {
            return null;
        }
        $seconds = (int) $m[2] * 3600 + ((int) $m[3] - $offset) * 60 + (int) $m[4];

        return $day + $seconds * 1000 + (int) substr(str_pad($m[5] ?? '', 3, '0'), 0, 3);
    }

    /** In UTC with three decimals and `Z`. */
    public static function text(int $at): string
    {
        $ms = (($at % self::MINUTE) + self::MINUTE) % self::MINUTE;
        $minute = intdiv($at - $ms, self::MINUTE);
        if (self::$minute[0] !== $minute) {
            self::$minute = [$minute, gmdate('Y-m-d\TH:i:', $minute * 60)];
        }

        return self::$minute[1].substr((string) (100_000 + $ms), 1, 2).'.'.substr((string) (100_000 + $ms), 3).'Z';
    }

    private static function day(string $date): ?int
    {
        if (count(self::$days) > 5000) {
            self::$days = [];
        }
        [$year, $month, $day] = array_map(intval(...), explode('-', $date));

        return self::$days[$date] = checkdate($month, $day, $year)
            ? (int) gmmktime(0, 0, 0, $month, $day, $year) * 1000
            : null;
    }
}
