<?php

declare(strict_types=1);

namespace Vestigon\Core\Naming;

use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** Reads naming patterns (`vestigon.naming/1`). */
final class PatternReader
{
    public const FORMAT = 'vestigon.naming/1';

    /** @throws UnusableInput with the place of the first thing that is wrong */
    public static function read(Cursor $c): Pattern
    {
        if ($c->at('format')->value !== self::FORMAT) {
            $c->at('format')->fail('"'.self::FORMAT.'" is wanted');
        }
        $separator = $c->at('separator')->string();
        if ($separator === '') {
            $c->at('separator')->fail('at least one character is wanted');
        }
        $parts = [];
        foreach ($c->at('parts')->list() as $item) {
            $part = self::part($item, $separator);
            if (isset($parts[$part->name])) {
                $item->at('name')->fail("\"{$part->name}\" is there twice");
            }
            $parts[$part->name] = $part;
        }

        return $parts === []
            ? $c->at('parts')->fail('at least one part is wanted')
            : new Pattern(array_values($parts), $separator);
    }

    private static function part(Cursor $c, string $separator): NamePart
    {
        $words = $c->has('words') ? $c->at('words')->strings() : [];
        foreach ($words as $word) {
            if ($word === '' || str_contains($word, $separator)) {
                $c->at('words')->fail("\"{$word}\" can't be a word here: it is empty or holds the separator");
            }
        }
        $matches = $c->has('matches') ? $c->at('matches')->string() : null;
        if ($matches !== null && @preg_match(NamePart::pattern($matches), '') === false) {
            $c->at('matches')->fail("\"{$matches}\" is no regular expression");
        }

        return new NamePart(
            $c->at('name')->string(),
            $words,
            $matches,
            $c->has('optional') && $c->at('optional')->bool(),
        );
    }
}
