<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** Sets of keys to begin a plan with or to add to one (`vestigon.key-sets/1`). */
final class KeySets
{
    public const FORMAT = 'vestigon.key-sets/1';

    /**
     * @return array<string, list<Parameter>> by title
     *
     * @throws UnusableInput with the place of the first thing that is wrong
     */
    public static function read(Cursor $c): array
    {
        if ($c->at('format')->value !== self::FORMAT) {
            $c->at('format')->fail('"'.self::FORMAT.'" is wanted');
        }
        $sets = [];
        foreach ($c->at('sets')->list() as $set) {
            $title = $set->at('title')->someText();
            if (isset($sets[$title])) {
                $set->at('title')->fail("there are two sets \"{$title}\"");
            }
            $set->at('about')->string();
            $sets[$title] = PlanReader::parameters($set->at('parameters'));
        }

        return $sets;
    }

    /** @return array<string, mixed> the sets that come with the product */
    public static function shippedDocument(): array
    {
        return Cursor::json(
            (string) file_get_contents(dirname(__DIR__, 2).'/keys/default.json'),
            'the shipped key sets',
        )->object();
    }
}
