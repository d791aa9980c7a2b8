<?php

declare(strict_types=1);

namespace Vestigon\Core\Template;

/**
 * One text for a list of texts, so that two lists give the same only if they are the same: no text can play the mark
 * between two.
 */
final class Distinct
{
    public static function of(?string ...$texts): string
    {
        $all = '';
        foreach ($texts as $text) {
            $all .= $text === null ? '-' : strlen($text).':'.$text;
        }

        return $all;
    }
}
