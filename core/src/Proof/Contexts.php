<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Plan\Fields;

/** The clicks that stand for all clicks: every combination of listed values, with hostile and with empty free text. */
final class Contexts
{
    /** Free text that breaks what can be broken: reserved characters, marks of tokens, other scripts, a plus, a percent sign. */
    public const HOSTILE = 'a&b=c #?+%41{x}é"<日>';

    /**
     * @param list<string> $fields the click's fields that matter; the others are left out
     * @return non-empty-list<array<string, string>>
     */
    public static function all(array $fields, Dialect $dialect, ?string $campaignType): array
    {
        $contexts = [['click.id' => 'Q7f-2x', 'click.random' => '884213']];
        foreach (Fields::LISTED as $field => $values) {
            if (in_array($field, $fields, true) && self::canBe($field, $dialect, $campaignType)) {
                $contexts = array_merge(...array_map(
                    static fn (array $context): array => array_map(static fn (string $v): array => $context + [$field => $v], $values),
                    $contexts,
                ));
            }
        }
        $free = array_filter($fields, static fn (string $f): bool => in_array($f, Fields::OF_A_CLICK, true) && ! isset(Fields::LISTED[$f])
            && ! str_starts_with($f, 'click.') && self::canBe($f, $dialect, $campaignType));
        if ($free === []) {
            return $contexts;
        }
        $hostile = array_fill_keys($free, self::HOSTILE);

        return array_merge(...array_map(static fn (array $context): array => [$context + $hostile, $context], $contexts));
    }

    /** Fields whose tokens work for other campaign types only never have a value here. */
    public static function canBe(string $field, Dialect $dialect, ?string $campaignType): bool
    {
        $elsewhere = false;
        foreach ($dialect->tokens as $token) {
            if ($token->field === $field) {
                if ($token->worksFor($campaignType)) {
                    return true;
                }
                $elsewhere = true;
            }
        }

        return ! $elsewhere;
    }
}
