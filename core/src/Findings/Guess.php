<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

/** Guesses which of some words somebody meant. */
final class Guess
{
    private const LONGEST = 64;

    /**
     * The word that differs least, by Levenshtein's distance on letters and digits; null if none is near.
     *
     * @param list<string> $words
     */
    public static function nearest(string $typed, array $words): ?string
    {
        if ($typed === '' || strlen($typed) > self::LONGEST) {
            return null;
        }
        $bare = self::bare($typed);
        $best = null;
        $least = PHP_INT_MAX;
        foreach ($words as $word) {
            $wanted = self::bare($word);
            $distance = levenshtein($bare, $wanted);
            if (
                $distance < $least
                && $distance <= intdiv(max(strlen($bare), strlen($wanted)), 4) + ($bare === $wanted ? 1 : 0)
            ) {
                [$best, $least] = [$word, $distance];
            }
        }

        return $best;
    }

    private static function bare(string $word): string
    {
        return strtolower((string) preg_replace('/[^A-Za-z0-9]+/', '', $word));
    }
}
