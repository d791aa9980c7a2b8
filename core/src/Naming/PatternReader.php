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
            : new Pattern(
                array_values($parts),
                $separator,
                $c->has('for') ? NamedFor::read($c->at('for')) : new NamedFor(),
                $c->has('title') ? $c->at('title')->string() : '',
            );
    }

    private static function part(Cursor $c, string $separator): NamePart
    {
        $meanings = [];
        foreach ($c->has('words') ? $c->at('words')->list() : [] as $item) {
            $word = is_string($item->value) ? $item->value : $item->at('word')->string();
            $meanings[$word] = is_string($item->value) || ! $item->has('means') ? '' : $item->at('means')->string();
        }
        $words = array_map(strval(...), array_keys($meanings));
        foreach ($words as $word) {
            if ($word === '' || str_contains($word, $separator)) {
                $c->at('words')->fail("\"{$word}\" can't be a word here: it is empty or holds the separator");
            }
        }
        $matches = $c->has('matches') ? $c->at('matches')->string() : null;
        if ($matches !== null && @preg_match(NamePart::pattern($matches), '') === false) {
            $c->at('matches')->fail("\"{$matches}\" is no regular expression");
        }

        $name = $c->at('name')->string();
        if (preg_match('/^[A-Za-z0-9_-]+$/D', $name) !== 1) {
            $c->at('name')->fail('letters, digits, "-" and "_" are wanted: parts are fields of the plan');
        }

        return new NamePart(
            $name,
            $words,
            $matches,
            $c->has('optional') && $c->at('optional')->bool(),
            $c->has('default') ? $c->at('default')->string() : null,
            array_filter($meanings, static fn (string $m): bool => $m !== ''),
        );
    }
}
