<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Plan\Fields;

/** The clicks that stand for all clicks: every combination of listed values, with hostile and with empty free text. */
final class Contexts
{
    /**
     * Free text that breaks what can be broken: reserved characters, marks of tokens, other scripts, a plus, a percent
     * sign.
     */
    public const HOSTILE = 'a&b=c #?+%41{x}é"<日>';

    /**
     * A click with plain words for everything that it can have.
     *
     * @param list<string> $fields
     * @return array<string, string>
     */
    public static function plain(array $fields, Dialect $dialect, ?string $campaignType): array
    {
        $context = ['click.id' => 'Q7f-2x', 'click.random' => '884213'];
        foreach ($fields as $field) {
            if (in_array($field, Fields::OF_A_CLICK, true) && $dialect->mayHave($field, $campaignType)) {
                $context += [$field => Fields::LISTED[$field][0] ?? 'word'];
            }
        }

        return $context;
    }

    /**
     * @param list<string> $fields the click's fields that matter; the others are left out
     * @return non-empty-list<array<string, string>>
     */
    public static function all(array $fields, Dialect $dialect, ?string $campaignType): array
    {
        $contexts = [['click.id' => 'Q7f-2x', 'click.random' => '884213']];
        foreach (Fields::LISTED as $field => $values) {
            if (in_array($field, $fields, true) && $dialect->mayHave($field, $campaignType)) {
                $contexts = array_merge(
                    ...array_map(
                        static fn (array $context): array => array_map(
                            static fn (string $v): array => $context + [$field => $v],
                            $values,
                        ),
                        $contexts,
                    ),
                );
            }
        }
        $free = array_filter(
            $fields,
            static fn (string $f): bool => in_array($f, Fields::OF_A_CLICK, true)
                && ! isset(Fields::LISTED[$f])
                && ! str_starts_with($f, 'click.')
                && $dialect->mayHave($f, $campaignType),
        );
        if ($free === []) {
            return $contexts;
        }
        $hostile = array_fill_keys($free, self::HOSTILE);

        return array_merge(
            ...array_map(static fn (array $context): array => [$context + $hostile, $context], $contexts),
        );
    }
}
