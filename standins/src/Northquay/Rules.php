<?php

declare(strict_types=1);

namespace Standins\Northquay;

/** What Northquay refuses to store. */
final class Rules
{
    private const LENGTHS = ['template' => 2048, 'suffix' => 1024, 'landing' => 2048];

    /** @param array<string, string> $after all slots or custom parameters of the node as they would be */
    public static function problem(string $level, string $column, string $name, ?string $value, array $after): ?string
    {
        if ($column === 'custom') {
            return match (true) {
                $level === 'account' => 'an account has no custom parameters',
                count($after) > 8 => 'a node takes at most 8 custom parameters',
                strlen($name) > 16 || $name === '' => 'a name of 1 to 16 characters is wanted',
                $value !== null && mb_strlen($value) > 200 => 'a value has at most 200 characters',
                default => null,
            };
        }
        if (! isset(self::LENGTHS[$name]) || ($name === 'landing' && $level !== 'ad')) {
            return "a {$level} has no slot \"{$name}\"";
        }
        if ($value !== null && mb_strlen($value) > self::LENGTHS[$name]) {
            return "the {$name} has more than ".self::LENGTHS[$name].' characters';
        }

        return $name === 'template' && $value !== null && ! preg_match('/\{landing(\.raw|\.enc2?)?\}/i', $value) ? 'a template needs a landing token' : null;
    }
}
