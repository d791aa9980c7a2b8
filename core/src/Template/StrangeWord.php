<?php

declare(strict_types=1);

namespace Vestigon\Core\Template;

/**
 * A word of lower-case letters that stands in none of some texts, to mark or replace something in them.
 *
 * It is made from the texts themselves (SHA-256, FIPS 180-4): a text that holds it would have to hold its own digest.
 * Letters alone outlive percent-encoding, decoding and slugs.
 */
final class StrangeWord
{
    private const LETTERS = 16;

    public static function to(string ...$texts): string
    {
        $digest = hash('sha256', Distinct::of(...$texts));

        return strtr(substr($digest, 0, self::LETTERS), '0123456789', 'ghijklmnop');
    }
}
