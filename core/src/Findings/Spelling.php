<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Url\Utf8;

/** How a word is spelt, and what it is whatever its spelling. */
final class Spelling
{
    /** Without capitals and what people write between parts: white space, `-`, `_`, `+`, `%20`. */
    public static function bare(string $word): string
    {
        return mb_convert_case(
            (string) preg_replace('/(?:\s|[-_+]|%20)+/u', '', Utf8::mended($word)),
            MB_CASE_FOLD,
        );
    }
}
