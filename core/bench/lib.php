<?php

declare(strict_types=1);

// What the core's benches share: times as ratios of two sides measured in turn, in one run.

require dirname(__DIR__, 2).'/vendor/autoload.php';

gc_disable(); // as the command does: the core makes no circles

final class Bench
{
    private static bool $missed = false;

    /** @param list<float> $values */
    public static function median(array $values): float
    {
        sort($values);

        return $values[intdiv(count($values), 2)];
    }

    /** Processor seconds of this process: what others do on the machine counts less. */
    public static function cpu(): float
    {
        $u = getrusage() ?: [];

        return ($u['ru_utime.tv_sec'] ?? 0)
            + ($u['ru_stime.tv_sec'] ?? 0)
            + (($u['ru_utime.tv_usec'] ?? 0) + ($u['ru_stime.tv_usec'] ?? 0)) / 1e6;
    }

    public static function report(string $what, float $value, string $goal, bool $met): void
    {
        self::$missed = self::$missed || ! $met;
        printf("%-74s %8.2f   %-14s %s\n", $what, $value, $goal, $met ? 'met' : 'MISSED');
    }

    public static function end(): never
    {
        exit(self::$missed ? 1 : 0);
    }
}
