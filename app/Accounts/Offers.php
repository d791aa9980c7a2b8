<?php

namespace App\Accounts;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Dialect\Token;
use Vestigon\Core\Dialect\TokenKind;

/**
 * What a person can write into the slots of a path: the tokens that work there, and the custom parameters that are set.
 */
final class Offers
{
    /**
     * @return array{
     *     open: string, close: string, template: list<array<string, string>>,
     *     suffix: list<array<string, string>>, landing: list<array<string, string>>,
     *     custom: list<array<string, string>>
     * }
     */
    public static function on(Path $path): array
    {
        $dialect = $path->dialect;
        $prefix = $dialect->customParameters->prefix ?? null;
        $custom = [];
        foreach ($prefix === null ? [] : $path->nodes as $node) {
            foreach ($node->custom as $name => $value) {
                $custom["{$prefix}{$name}"] = [
                    'written' => $dialect->written("{$prefix}{$name}"),
                    'gives' => $value,
                    'kind' => 'custom',
                ];
            }
        }
        $values = self::tokens($path, TokenKind::Value, TokenKind::When);
        $offers = [
            'open' => $dialect->syntax->open ?? '',
            'close' => $dialect->syntax->close ?? '',
            'custom' => self::tokens($path, TokenKind::Value),
        ];
        foreach (SlotKind::cases() as $kind) {
            $offers[$kind->value] = match (true) {
                $dialect->syntax === null,
                $kind === SlotKind::Landing && ! ($dialect->slot($kind)->tokens ?? false) => [],
                $kind === SlotKind::Template => [
                    ...self::tokens($path, TokenKind::Landing),
                    ...$values,
                    ...array_values($custom),
                ],
                default => [...$values, ...array_values($custom)],
            };
        }

        return $offers;
    }

    /** @return list<array<string, string>> */
    private static function tokens(Path $path, TokenKind ...$kinds): array
    {
        $works = array_filter(
            $path->dialect->tokens,
            static fn (Token $t): bool => in_array($t->kind, $kinds, true) && $t->worksFor($path->campaignType()),
        );

        return array_values(
            array_map(
                static fn (Token $t): array => [
                    'written' => $path->dialect->written($t->kind === TokenKind::When ? "{$t->name}:" : $t->name),
                    'gives' => match ($t->kind) {
                        TokenKind::Landing => 'the landing URL'
                            .($t->encode === null
                                ? ''
                                : ($t->encode === 0
                                    ? ', as it is'
                                    : ", encoded {$t->encode}×")),
                        TokenKind::When => "its text, if {$t->field} is ".implode(' or ', $t->is),
                        default => $t->field.($t->encode > 1 ? ", encoded {$t->encode}×" : ''),
                    },
                    'kind' => $t->kind->value,
                ],
                $works,
            ),
        );
    }
}
