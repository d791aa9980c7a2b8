<?php

namespace App\Arrivals;

/** Tells lines that read alike apart, by how many of them came before. */
final class SameAgain
{
    /** So many of the lines before are looked back to. */
    private const BACK = 100_000;

    /** @var array<string, int> lines that were there before → how often */
    private array $same = [];

    /** @return int 1 for a line that was not there before */
    public function number(string $line): int
    {
        $digest = hash('xxh128', $line);
        $n = $this->same[$digest] = ($this->same[$digest] ?? 0) + 1;
        if (count($this->same) > 2 * self::BACK) {
            $this->same = array_slice($this->same, self::BACK, preserve_keys: true);
        }

        return $n;
    }
}
