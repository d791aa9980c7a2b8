<?php

declare(strict_types=1);

namespace Vestigon\Redirector;

/** Programs that say what they are, by the name that they give themselves. */
final class Programs
{
    private const START = 4;

    /** @param array{starts: array<string, list<string>>, others: string} $known as bin/programs.mjs writes them */
    public static function isOne(array $known, string $agent): bool
    {
        $last = strlen($agent) - self::START;
        for ($i = 0; $i <= $last; $i++) {
            foreach ($known['starts'][substr($agent, $i, self::START)] ?? [] as $name) {
                if (substr_compare($agent, $name, $i, strlen($name)) === 0) {
                    return true;
                }
            }
        }

        return preg_match($known['others'], $agent) === 1;
    }
}
