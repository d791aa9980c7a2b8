<?php

declare(strict_types=1);

namespace Vestigon\Core\Template;

use Vestigon\Core\Dialect\Syntax;

/** Finds for each opening mark of a text the mark that closes it, in one pass. */
final class Marks
{
    /**
     * Where the two marks differ, nested pairs count; where they are the same, the next one closes. An opening mark
     * without a close is not listed.
     *
     * @return array<int, int> offset of the opening mark → offset of its closing mark, in bytes
     */
    public static function pairs(string $text, Syntax $syntax): array
    {
        $pattern = '~'.preg_quote($syntax->open, '~').'|'.preg_quote($syntax->close, '~').'~';
        preg_match_all($pattern, $text, $found, PREG_OFFSET_CAPTURE);
        $pairs = [];
        $waiting = [];
        $same = $syntax->open === $syntax->close;
        foreach ($found[0] as [$mark, $offset]) {
            if ($same ? $waiting === [] : $mark === $syntax->open) {
                $waiting[] = $offset;
            } elseif ($waiting !== []) {
                $pairs[array_pop($waiting)] = $offset;
            }
        }

        return $pairs;
    }
}
