<?php

declare(strict_types=1);

namespace Vestigon\Core\Template;

use Vestigon\Core\Template\Part\Literal;

/** Takes a text apart at its literal `?`, `&` and `#`. What stands in a conditional is taken as if it counted. */
final class Pairs
{
    /** @return list<Pair> in order; of a template or landing URL the first is the address */
    public static function of(Template $template): array
    {
        $pairs = [];
        $mark = '';
        $piece = [];
        $at = 0;
        foreach (self::flat($template) as [$offset, $text, $literal]) {
            if (! $literal) {
                $piece[] = [$offset, $text, false];

                continue;
            }
            $from = 0;
            while ($from < strlen($text)) {
                $length = strcspn($text, '?&#', $from);
                if ($length > 0) {
                    $piece[] = [$offset + $from, substr($text, $from, $length), true];
                }
                $from += $length;
                if ($from < strlen($text)) {
                    $pairs[] = self::pair($mark, $at, $piece);
                    [$mark, $at, $piece] = [$text[$from], $offset + $from + 1, []];
                    $from++;
                }
            }
        }
        $pairs[] = self::pair($mark, $at, $piece);

        return $pairs;
    }

    /**
     * Stretches of the text: where, what, and whether it is literal.
     *
     * @return iterable<array{int, string, bool}>
     */
    private static function flat(Template $template): iterable
    {
        foreach ($template->walk() as $part) {
            yield [$part->offset, $part->source, $part instanceof Literal];
        }
    }

    /** @param list<array{int, string, bool}> $piece */
    private static function pair(string $mark, int $at, array $piece): Pair
    {
        $key = '';
        $keyFixed = true;
        $value = null;
        $valueAt = $at;
        $valueFixed = true;
        foreach ($piece as [$offset, $text, $literal]) {
            if ($value !== null) {
                $value .= $text;
                $valueFixed = $valueFixed && $literal;

                continue;
            }
            $equals = $literal ? strpos($text, '=') : false;
            if ($equals === false) {
                $key .= $text;
                $keyFixed = $keyFixed && $literal;
            } else {
                $key .= substr($text, 0, $equals);
                $value = substr($text, $equals + 1);
                $valueAt = $offset + $equals + 1;
            }
        }

        return new Pair($mark, $at, $key, $keyFixed, $value, $valueAt, $valueFixed);
    }
}
