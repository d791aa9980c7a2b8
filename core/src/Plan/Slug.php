<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Url\Utf8;

/** Makes names fit for reports: one spelling for what people write in many ways. */
final class Slug
{
    /**
     * Unicode NFKC (UAX #15), lower case; each run of other characters than letters, marks, decimal digits, `.` and `-`
     * becomes one `_`, trimmed of `_`.
     */
    public static function of(string $name): string
    {
        $normal = \Normalizer::normalize($name, \Normalizer::FORM_KC);
        $lower = mb_strtolower(is_string($normal) ? $normal : Utf8::mended($name), 'UTF-8');

        return trim((string) preg_replace('/[^\p{L}\p{M}\p{Nd}.\-]+/u', '_', $lower), '_');
    }
}
