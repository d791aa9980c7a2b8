<?php

namespace App\Feeds;

use App\Feeds\Files\ItemsFile;
use App\Feeds\Files\XmlFile;

/** How a list is likely to be read, by the names of its columns and what its first items have in them. */
final class Suggestion
{
    private const ITEMS = 50;

    private const IDS = ['id', 'sku', 'item_id', 'product_id', 'guid', 'number', '@id', 'offer_id'];

    private const PAID = '~(^|[_:.@ -])(ads?|paid)([_:.@ -]|$)~i';

    /** Addresses that are no links to a page. */
    private const PICTURES = '~im(g|age)|photo|picture|thumb~i';

    /** @return array<string, mixed> as `reads` of vestigon.feed/1 */
    public static function of(ItemsFile $file): array
    {
        $seen = self::columns($file);
        $links = [];
        foreach ($seen as $column => $share) {
            if ($share['links'] > 0.5 && preg_match(self::PICTURES, (string) $column) !== 1) {
                $links[] = [
                    'column' => (string) $column,
                    'kind' => preg_match(self::PAID, (string) $column) === 1 ? 'paid' : 'unpaid',
                ];
            }
        }
        $bare = static fn (string $c): string => strtolower((string) preg_replace('~^.*:~', '', $c));
        $id = null;
        foreach (self::IDS as $name) {
            foreach (array_map(strval(...), array_keys($seen)) as $column) {
                $id ??= $bare($column) === $name ? $column : null;
            }
        }

        return [
            'form' => $file->form()->value,
            ...$file instanceof XmlFile ? ['item' => $file->item] : [],
            'id' => $id ?? (string) (array_key_first($seen) ?? 'id'),
            'links' => $links === [] ? [['column' => 'link', 'kind' => 'unpaid']] : $links,
        ];
    }

    /** @return array<string, array{filled: float, links: float, example: string}> column → share of items */
    public static function columns(ItemsFile $file): array
    {
        $items = 0;
        $seen = [];
        foreach ($file->pieces() as $piece) {
            $cells = $piece->cells();
            if ($cells === null) {
                continue;
            }
            foreach ($cells as $column => $cell) {
                $of = &$seen[(string) $column];
                $of ??= ['filled' => 0, 'links' => 0, 'example' => ''];
                $of['filled'] += $cell === '' ? 0 : 1;
                $of['links'] += preg_match('~^https?://~i', $cell);
                $of['example'] = $of['example'] === '' ? mb_substr($cell, 0, 120) : $of['example'];
                unset($of);
            }
            if (++$items === self::ITEMS) {
                break;
            }
        }

        return array_map(
            static fn (array $of): array => [
                'filled' => $of['filled'] / $items,
                'links' => $of['links'] / $items,
                'example' => $of['example'],
            ],
            $seen,
        );
    }
}
