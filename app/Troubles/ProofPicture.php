<?php

namespace App\Troubles;

/** Proof over the days as the layers of a picture: what holds at the bottom, what is broken on it, then the rest. */
final class ProofPicture
{
    public const WIDE = 720;

    public const HIGH = 90;

    private const STATES = ['proven', 'broken', 'untracked'];

    /**
     * @param list<array{day: string, proven: int, broken: int, untracked: int}> $days
     * @return array<string, string> state → the path of its layer in SVG; none where there is no day
     */
    public static function of(array $days): array
    {
        if ($days === []) {
            return [];
        }
        $days = count($days) === 1 ? [$days[0], $days[0]] : $days;
        $top = max(1, ...array_map(static fn (array $d): int => $d['proven'] + $d['broken'] + $d['untracked'], $days));
        $below = array_fill(0, count($days), 0);
        $paths = [];
        foreach (self::STATES as $state) {
            $to = $from = [];
            foreach ($days as $i => $day) {
                $x = round($i * self::WIDE / (count($days) - 1), 1);
                $from[] = $x.','.round(self::HIGH - $below[$i] / $top * self::HIGH, 1);
                $below[$i] += $day[$state];
                $to[] = $x.','.round(self::HIGH - $below[$i] / $top * self::HIGH, 1);
            }
            $paths[$state] = 'M'.implode('L', [...$to, ...array_reverse($from)]).'Z';
        }

        return $paths;
    }
}
