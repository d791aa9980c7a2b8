<?php

namespace App\Support;

/** Texts from outside, as a column takes them. */
final class Text
{
    /** What is no UTF-8 is marked as such, and what is too long is cut off. */
    public static function fit(string $text, int $characters): string
    {
        return mb_substr(mb_scrub($text), 0, $characters);
    }
}
