<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Url\Query;

/** What looks like a person's address or number in a text. */
final class Personal
{
    /**
     * Common practice, not a full grammar: what people would take for an address or a number. RFC 5321 §4.5.3.1.1: at
     * most 64 characters before the @.
     */
    private const LOOKS = [
        'an e-mail address' => '~(?<![a-z0-9._%+\-])[a-z0-9._%+\-]{1,64}@[a-z0-9\-]+(?:\.[a-z0-9\-]+)*\.[a-z]{2,}~i',
        'a phone number' => '~(?<![\w.])(?:\+|00)\d{1,3}[ ()./\-]{0,4}(?:\d[ ()./\-]{0,4}){7,12}(?!\w)~',
    ];

    /** @return list<string> what it looks like, in words */
    public static function in(string $text): array
    {
        // a plus in a query is a space: a phone number's own is %2B, but people type it as it is
        return array_keys(
            array_filter(
                self::LOOKS,
                static fn (string $look): bool => preg_match($look, rawurldecode($text)) === 1
                    || preg_match($look, Query::decoded($text)) === 1,
            ),
        );
    }
}
