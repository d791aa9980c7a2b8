<?php

namespace App\Accounts;

use App\Connectors\RemoteNode;
use Vestigon\Core\Dialect\Level;

/** Says why an element that a platform delivers can't be taken over. */
final class Misfit
{
    /** The longest number of an element, and the longest name of a custom parameter, in characters. */
    public const LONGEST_NAME = 191;

    /** The longest text that is kept, in bytes. */
    public const LONGEST_TEXT = 65_535;

    private const STANDINGS = ['live', 'paused', 'review', 'rejected', RemoteNode::GONE];

    /** @return string|null null: it can be taken over */
    public static function why(RemoteNode $node, Level $level): ?string
    {
        $isText = mb_check_encoding($node->id.$node->name.$node->type.$node->publishedName, 'UTF-8');

        return match (true) {
            $node->level !== $level->id => "the platform calls it “{$node->level}” among its {$level->label}",
            $node->id === '' || mb_strlen($node->id) > self::LONGEST_NAME => 'its number is empty or has '
                .'more than '.self::LONGEST_NAME.' characters',
            ! $isText => 'its number or name is no UTF-8',
            mb_strlen((string) $node->type) > 64 => 'its type has more than 64 characters',
            $node->version < 0 || $node->version > 4_294_967_295 => "its version {$node->version} is none",
            ! in_array($node->standing, self::STANDINGS, true) => "the platform says that it is “{$node->standing}”",
            default => self::whyOfTexts($node),
        };
    }

    private static function whyOfTexts(RemoteNode $node): ?string
    {
        foreach ($node->slots as $kind => $text) {
            if (($why = self::whyOfText($text)) !== null) {
                return "its {$kind} {$why}";
            }
        }
        foreach ($node->custom as $name => $text) {
            $why =
                mb_strlen((string) $name) > self::LONGEST_NAME
                    ? 'has a name of more than '.self::LONGEST_NAME.' characters'
                    : self::whyOfText($text);
            if ($why !== null) {
                return 'its custom parameter '.mb_strimwidth((string) $name, 0, 60, '…')." {$why}";
            }
        }

        return null;
    }

    /** Why a text can't be kept; null if it can. */
    public static function whyOfText(string $text): ?string
    {
        return match (true) {
            strlen($text) > self::LONGEST_TEXT => 'has '
                .number_format(strlen($text))
                .' bytes; at most '
                .number_format(self::LONGEST_TEXT)
                .' can be kept',
            ! mb_check_encoding($text, 'UTF-8') => 'is no UTF-8',
            default => null,
        };
    }
}
