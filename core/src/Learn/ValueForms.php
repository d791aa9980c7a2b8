<?php

declare(strict_types=1);

namespace Vestigon\Core\Learn;

/**
 * What values that stand in a click's URL tell of how the platform writes them: how deep, and a space as what.
 *
 * @phpstan-import-type DialectDocument from RuleChange
 */
final class ValueForms
{
    /**
     * @param DialectDocument $document
     * @param array<string, list<string>> $values by field, as they stand in the URL
     * @param string $texts all slots' texts
     * @return list<RuleChange>
     */
    public static function changes(array $document, array $values, string $texts): array
    {
        $changes = [];
        foreach ($document['tokens'] as $i => $token) {
            $now = $token['encode'] ?? 1;
            $isUsed = $token['kind'] === 'value' && str_contains($texts, $token['name']);
            foreach ($isUsed ? $values[$token['field'] ?? ''] ?? [] : [] as $value) {
                $depth = self::depth($value);
                if ($depth !== null && $depth !== $now) {
                    $words = ['as it is', 'encoded once', 'encoded twice'][$depth];
                    $says = "{$token['name']} gives its value {$words}: “{$value}”";
                    $changes[$i] = new RuleChange(['tokens', $i, 'encode'], $token['encode'] ?? null, $depth, $says);
                }
            }
        }
        $all = implode(' ', array_merge([], ...array_values($values)));
        $now = $document['assembly']['space'];
        $space = match (true) {
            str_contains($all, '+') && ! str_contains($all, '%20') => '+',
            str_contains($all, '%20') && ! str_contains($all, '+') => '%20',
            default => $now,
        };
        if ($space !== $now) {
            $changes[] = new RuleChange(['assembly', 'space'], $now, $space, "a space in a value is written {$space}");
        }

        return array_values($changes);
    }

    /** How often a value is percent-encoded; null: it does not show. */
    private static function depth(string $value): ?int
    {
        return match (true) {
            preg_match('/%25[0-9A-Fa-f]{2}/', $value) === 1 => 2,
            preg_match('/%[0-9A-Fa-f]{2}/', $value) === 1 => 1,
            preg_match('~[^A-Za-z0-9._\~*+-]~', $value) === 1 => 0,
            default => null,
        };
    }
}
