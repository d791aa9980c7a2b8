<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** Instants as whole milliseconds since 1970-01-01T00:00Z, and as text (RFC 3339 §5.6). */
final class Instant
{
    private const FORM = '/^(\d{4}-\d\d-\d\d)[Tt ](\d\d):(\d\d):(\d\d)(?:\.(\d+))?(?:[Zz]|([+-])(\d\d):(\d\d))$/D';

    /** @var array<string, int|null> the first millisecond of days in UTC; null: there is no such day */
    private static array $days = [];

    /** With any offset; what is finer than a millisecond is left out. Null: it is no instant. */
    public static function read(string $text): ?int
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
        $ms = (($at % 1000) + 1000) % 1000;

        return gmdate('Y-m-d\TH:i:s', intdiv($at - $ms, 1000)).sprintf('.%03dZ', $ms);
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
