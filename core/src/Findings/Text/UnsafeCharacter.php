<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;
use Vestigon\Core\Template\Element\Literal;

/**
 * unsafe-character: a character that may not stand in a URL as it is (RFC 3986 §2); browsers and trackers treat it in
 * different ways.
 */
final readonly class UnsafeCharacter implements TextRule
{
    /** What RFC 3986 lets stand, and the percent sign. Spaces in values are another rule's. */
    private const UNSAFE = '~[^A-Za-z0-9\-._\~:/?#\[\]@!$&\'()*+,;=%\s]|[\x00-\x08\x0b\x0c\x0e-\x1f]~u';

    public function check(Spot $spot): iterable
    {
        if ($spot->slot === null) {
            return; // a custom parameter's text is encoded
        }
        $syntax = $spot->dialect->syntax;
        foreach ($spot->template->walk() as $part) {
            if (! ($part instanceof Literal)) {
                continue;
            }
            $text =
                $syntax === null || ! $spot->fillsTokens()
                    ? $part->source
                    : str_replace($syntax->open, str_repeat('-', strlen($syntax->open)), $part->source);
            if (preg_match_all(self::UNSAFE, $text, $found, PREG_OFFSET_CAPTURE) === false) {
                yield $spot->finding(
                    'unsafe-character',
                    Severity::Warning,
                    'The text is not UTF-8, so its characters arrive damaged.',
                    $part->offset,
                    strlen($part->source),
                );

                continue;
            }
            foreach ($found[0] as [$character, $at]) {
                $encoded = rawurlencode($character);
                yield $spot->finding(
                    'unsafe-character',
                    Severity::Warning,
                    "“{$character}” may not stand in a URL as it is; {$encoded} may.",
                    $part->offset + $at,
                    strlen($character),
                    fix: $spot->instead("write {$encoded}", $part->offset + $at, strlen($character), $encoded),
                );
            }
        }
    }
}
