<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Plan\Fields;

/** Reads a dialect document (`vestigon.dialect/1`). */
final class DialectReader
{
    public const FORMAT = 'vestigon.dialect/1';

    public const FAMILIES = ['search', 'social', 'native', 'display', 'portal'];

    /**
     * A dialect as requests give it: the id of a shipped one, or a whole document.
     *
     * @param \Closure(string): ?Dialect $shipped gives a shipped dialect by its id
     *
     * @throws UnusableInput
     */
    public static function given(Cursor $given, \Closure $shipped): Dialect
    {
        return is_string($given->value)
            ? $shipped($given->value) ?? $given->fail("\"{$given->value}\" is no shipped dialect")
            : self::read($given);
    }

    /** @throws UnusableInput with the place of the first thing that is wrong */
    public static function read(Cursor $document): Dialect
    {
        if ($document->at('format')->value !== self::FORMAT) {
            $document->at('format')->fail('"'.self::FORMAT.'" is wanted');
        }
        $syntax = $document->has('syntax') ? self::syntax($document->at('syntax')) : null;
        $levels = self::levels($document->at('levels'));
        $levelIds = array_map(static fn (Level $l): string => $l->id, $levels);

        return new Dialect(
            self::id($document->at('id')),
            $document->at('title')->someText(),
            $document->has('about') ? $document->at('about')->string() : '',
            self::family($document->at('family')),
            $levels,
            array_map(static fn (Cursor $c): string => $c->someText(), $document->at('campaignTypes')->list()),
            $syntax,
            self::tokens($document->at('tokens'), $syntax),
            $document->has('customParameters')
                ? self::customParameters($document->at('customParameters'), $levelIds)
                : null,
            self::slots($document->at('slots'), $levelIds),
            self::assembly($document->at('assembly')),
            self::delivery($document->at('delivery')),
            $document->has('clickId') ? self::clickId($document->at('clickId')) : null,
            $document->has('autoTags') ? self::autoTags($document->at('autoTags')) : null,
            $document->has('namesFreeze') && $document->at('namesFreeze')->bool(),
        );
    }

    private static function id(Cursor $c): string
    {
        return preg_match('/^[a-z0-9][a-z0-9-]*$/D', $c->string()) === 1
            ? $c->string()
            : $c->fail('small letters, digits and "-" are wanted');
    }

    private static function family(Cursor $c): string
    {
        return in_array($c->string(), self::FAMILIES, true)
            ? $c->string()
            : $c->fail('"'.$c->string().'" is not one of '.implode(', ', self::FAMILIES));
    }

    private static function field(Cursor $c): string
    {
        return Fields::exists($c->string()) ? $c->string() : $c->fail("there is no field \"{$c->string()}\"");
    }

    /** @return list<Level> */
    private static function levels(Cursor $list): array
    {
        $levels = [];
        foreach ($list->list() as $depth => $item) {
            $id = $item->at('id')->someText();
            if (in_array($id, array_map(static fn (Level $l): string => $l->id, $levels), true)) {
                $item->at('id')->fail("\"{$id}\" is there twice");
            }
            $levels[] = new Level(
                $id,
                $item->at('label')->someText(),
                $item->at('role')->enum(Role::class),
                $depth,
            );
        }
        if (
            $levels === []
            || $levels[0]->role !== Role::Account
            || $levels[count($levels) - 1]->role !== Role::Ad
        ) {
            $list->fail('the first level must have the role account, the last one the role ad');
        }

        return $levels;
    }

    private static function syntax(Cursor $c): Syntax
    {
        foreach (['open', 'close'] as $mark) {
            if ($c->at($mark)->string() === '') {
                $c->at($mark)->fail('a mark of at least one character is wanted');
            }
        }

        return new Syntax(
            $c->at('open')->string(),
            $c->at('close')->string(),
            $c->at('caseSensitive')->bool(),
            self::choice($c->at('unknown'), 'keep', 'blank'),
        );
    }

    /** @return list<Token> */
    private static function tokens(Cursor $list, ?Syntax $syntax): array
    {
        $tokens = [];
        $seen = [];
        foreach ($list->list() as $item) {
            $name = $item->at('name')->string();
            $folded = $syntax?->folded($name) ?? $name;
            if ($name === '' || isset($seen[$folded])) {
                $item->at('name')->fail($name === '' ? 'a name is wanted' : "\"{$name}\" is there twice");
            }
            $seen[$folded] = true;
            $tokens[] = self::token($item, $name);
        }

        return $tokens;
    }

    private static function token(Cursor $item, string $name): Token
    {
        $kind = $item->at('kind')->enum(TokenKind::class);
        $encode = match (true) {
            ! $item->has('encode') => $kind === TokenKind::Landing ? null : 1,
            $kind === TokenKind::Landing && $item->at('encode')->value === 'auto' => null,
            default => $item->at('encode')->int(),
        };
        if ($encode !== null && ($encode < 0 || $encode > 9)) {
            $item->at('encode')->fail('a number from 0 to 9 is wanted');
        }

        return new Token(
            $name,
            $kind,
            $encode,
            $kind === TokenKind::Landing ? '' : self::field($item->at('field')),
            $item->has('values') ? $item->at('values')->stringMap() : null,
            $kind === TokenKind::When ? $item->at('is')->strings() : [],
            $item->has('campaignTypes') ? $item->at('campaignTypes')->strings() : null,
        );
    }

    /** @param list<string> $levelIds */
    private static function customParameters(Cursor $c, array $levelIds): CustomParameters
    {
        return new CustomParameters(
            $c->at('prefix')->someText(),
            self::known($c->at('levels'), $levelIds),
            $c->at('max')->atLeast(0),
            $c->at('nameLength')->atLeast(1),
            $c->at('valueLength')->atLeast(1),
        );
    }

    /**
     * @param list<string> $levelIds
     * @return list<Slot>
     */
    private static function slots(Cursor $list, array $levelIds): array
    {
        $flag = static fn (Cursor $c, string $key): bool => $c->has($key) && $c->at($key)->bool();

        return array_map(
            static fn (Cursor $c): Slot => new Slot(
                $c->at('kind')->enum(SlotKind::class),
                self::known($c->at('levels'), $levelIds)
                ?: $c->at('levels')->fail('at least one level is wanted'),
                $c->at('inherit')->enum(Inherit::class),
                $c->has('ignoredFor') ? $c->at('ignoredFor')->strings() : [],
                $c->has('levelsFor')
                    ? array_map(
                        static fn (Cursor $l): array => self::known($l, $levelIds),
                        $c->at('levelsFor')->map(),
                    )
                    : [],
                $c->has('gatherConflict') && self::choice($c->at('gatherConflict'), 'narrowest', 'all'),
                $flag($c, 'tokens'),
                $flag($c, 'needsLanding'),
                $c->has('maxLength') ? $c->at('maxLength')->atLeast(1) : null,
                $flag($c, 'reviewed'),
            ),
            $list->list(),
        );
    }

    private static function assembly(Cursor $c): Assembly
    {
        return new Assembly(
            self::choice($c->at('suffixJoins'), 'click', 'landing'),
            $c->at('mendsQuestionMark')->bool(),
            $c->at('mendsFragment')->bool(),
            self::choice($c->at('space'), '+', '%20'),
        );
    }

    private static function clickId(Cursor $c): ClickId
    {
        return new ClickId(
            $c->at('parameter')->someText(),
            self::choice($c->at('switch'), 'always', 'account'),
            $c->at('default')->bool(),
        );
    }

    private static function autoTags(Cursor $c): AutoTags
    {
        return new AutoTags(
            $c->at('default')->enum(AutoTagMode::class),
            array_map(self::autoTag(...), $c->at('tags')->list()),
            $c->has('modes')
                ? array_map(
                    static fn (Cursor $m): AutoTagMode => $m->enum(AutoTagMode::class),
                    $c->at('modes')->list(),
                )
                : AutoTagMode::cases(),
        );
    }

    private static function autoTag(Cursor $c): AutoTag
    {
        if ($c->has('text') === $c->has('field')) {
            $c->fail('either "text" or "field" is wanted');
        }

        return new AutoTag(
            $c->at('key')->someText(),
            $c->has('text') ? $c->at('text')->string() : null,
            $c->has('field') ? self::field($c->at('field')) : null,
        );
    }

    /** @return list<Delivery> */
    private static function delivery(Cursor $list): array
    {
        return array_map(static fn (Cursor $c): Delivery => $c->enum(Delivery::class), $list->list())
            ?: $list->fail('at least one of sequence and parallel is wanted');
    }

    /** True for the first word, false for the second. */
    private static function choice(Cursor $c, string $yes, string $no): bool
    {
        return match ($c->string()) {
            $yes => true,
            $no => false,
            default => $c->fail("\"{$yes}\" or \"{$no}\" is wanted"),
        };
    }

    /**
     * @param list<string> $levelIds
     * @return list<string>
     */
    private static function known(Cursor $list, array $levelIds): array
    {
        foreach ($list->list() as $item) {
            if (! in_array($item->string(), $levelIds, true)) {
                $item->fail('"'.$item->string().'" is not one of the levels '.implode(', ', $levelIds));
            }
        }

        return $list->strings();
    }
}
