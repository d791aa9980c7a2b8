<?php

declare(strict_types=1);

namespace Vestigon\Core\Channel;

use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** Reads channel rules (`vestigon.channels/1`). */
final class ChannelsReader
{
    public const FORMAT = 'vestigon.channels/1';

    /** @throws UnusableInput with the place of the first thing that is wrong */
    public static function read(Cursor $c): Channels
    {
        if ($c->at('format')->value !== self::FORMAT) {
            $c->at('format')->fail('"'.self::FORMAT.'" is wanted');
        }

        return new Channels(
            $c->at('keys')->stringMap(),
            array_map(
                static fn (Cursor $rule): Rule => new Rule(
                    $rule->at('channel')->string(),
                    array_map(self::test(...), $rule->at('all')->list()),
                ),
                $c->at('rules')->list(),
            ),
            $c->at('otherwise')->string(),
        );
    }

    /** The rules that come with the product. */
    public static function shipped(): Channels
    {
        return self::read(new Cursor(self::shippedDocument()));
    }

    /** @return array<string, mixed> */
    public static function shippedDocument(): array
    {
        return Cursor::json(
            (string) file_get_contents(dirname(__DIR__, 2).'/channels/default.json'),
            'the shipped channel rules',
        )->object();
    }

    private static function test(Cursor $c): Test
    {
        $ways = array_values(array_filter(['equals', 'in', 'begins', 'ends', 'matches'], $c->has(...)));
        if ($ways === [] || (count($ways) > 1 && array_diff($ways, ['in', 'begins', 'ends']) !== [])) {
            $c->fail('"equals" or "matches" is wanted, or lists of words: "in", "begins", "ends"');
        }
        $key = $c->at('key')->string();
        if ($ways === ['matches']) {
            $expression = $c->at('matches')->string();
            if (@preg_match(Test::pattern($expression), '') === false) {
                $c->at('matches')->fail("\"{$expression}\" is no regular expression");
            }

            return new Test($key, matches: $expression);
        }
        if ($ways === ['equals']) {
            return new Test($key, [mb_strtolower($c->at('equals')->string())]);
        }

        return new Test($key, self::words($c, 'in'), self::words($c, 'begins'), self::words($c, 'ends'));
    }

    /** @return list<string> */
    private static function words(Cursor $c, string $way): array
    {
        return $c->has($way)
            ? array_map(static fn (string $v): string => mb_strtolower($v), $c->at($way)->strings())
            : [];
    }
}
