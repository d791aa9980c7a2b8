<?php

namespace App\Accounts;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Plan\Fields;

/** A click as an ad would typically get it, to show what it sends. */
final class SampleClick
{
    /**
     * @param list<array{text: string, match: string}> $keywords of the ad's group
     * @return array<string, string>
     */
    public static function of(Path $path, array $keywords): array
    {
        $keyword = $keywords[0] ?? ['text' => '', 'match' => ''];
        $typical = [
            'device' => 'mobile',
            'network' => 'search',
            'keyword.text' => $keyword['text'],
            'keyword.match' => $keyword['match'],
            'placement' => '',
            'product.id' => 'sku-'.$path->last()->id,
            'click.id' => 'Kx4-sample',
            'click.random' => '402187',
        ];

        $type = $path->campaignType();
        foreach ($typical as $field => $value) {
            if ($value === '' || ! $path->dialect->mayHave($field, $type)) {
                unset($typical[$field]);
            }
        }

        return $typical;
    }

    /**
     * The fields that a person can set for a click on this ad.
     *
     * @param list<array{text: string, match: string}> $keywords
     * @return list<array{field: string, values: list<string>, suggestions: list<string>}> values: the listed ones,
     *     empty for free text
     */
    public static function fields(Path $path, array $keywords): array
    {
        $used = array_unique(array_map(static fn ($t): string => $t->field, $path->dialect->tokens));
        $fields = array_filter(
            Fields::OF_A_CLICK,
            static fn (string $f): bool => (in_array($f, $used, true) || $f === 'click.id')
                && $f !== 'click.random'
                && $path->dialect->mayHave($f, $path->campaignType()),
        );

        return array_values(
            array_map(
                static fn (string $f): array => [
                    'field' => $f,
                    'values' => Fields::LISTED[$f] ?? [],
                    'suggestions' => $f === 'keyword.text' ? array_values(array_column($keywords, 'text')) : [],
                ],
                $fields,
            ),
        );
    }
}
