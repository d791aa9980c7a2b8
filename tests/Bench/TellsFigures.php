<?php

namespace Tests\Bench;

/** A line for each figure of a bench, with its goal and whether it is met. */
trait TellsFigures
{
    private bool $missed = false;

    private function figure(string $what, float $value, float $most): void
    {
        $isMet = $value <= $most;
        $this->missed = $this->missed || ! $isMet;
        $this->line(sprintf('%-74s %8.2f   %-14s %s', $what, $value, "at most {$most}", $isMet ? 'met' : 'MISSED'));
    }

    /** @param non-empty-list<float> $times */
    private static function p95(array $times): float
    {
        sort($times);

        return $times[(int) (0.95 * count($times))];
    }

    /** @return int what the command ends with */
    private function allMet(): int
    {
        return $this->missed ? self::FAILURE : self::SUCCESS;
    }
}
