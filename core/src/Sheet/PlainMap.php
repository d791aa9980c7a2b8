<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Setting;

/** The map of a platform whose sheets nobody has shown us: one table with a column for all that can be written. */
final class PlainMap
{
    private const SLOTS = ['template' => 'Template', 'suffix' => 'Suffix', 'landing' => 'Landing URL'];

    private const SETTINGS = ['clickId' => 'Click ID', 'autoTags' => 'Automatic tags', 'delivery' => 'Delivery'];

    /** @return array<string, mixed> vestigon.sheet-map/1 */
    public static function of(Dialect $dialect): array
    {
        $ids = array_column($dialect->levels, 'id');
        $labels = array_column($dialect->levels, 'label');

        return [
            'format' => SheetMap::FORMAT,
            'dialect' => $dialect->id,
            'title' => 'Plain',
            'tables' => [
                [
                    'title' => 'texts',
                    'rowKind' => [
                        'column' => 'Level',
                        'values' => array_combine($labels === array_unique($labels) ? $labels : $ids, $ids),
                    ],
                    'columns' => self::columns($dialect),
                ],
            ],
        ];
    }

    /** @return list<array{heading: string, means: string}> */
    private static function columns(Dialect $dialect): array
    {
        $columns = [['heading' => 'Number', 'means' => 'id'], ['heading' => 'Name', 'means' => 'name']];
        foreach ($dialect->slots as $slot) {
            $columns[] = [
                'heading' => self::SLOTS[$slot->kind->value],
                'means' => "slot.{$slot->kind->value}",
            ];
        }
        if ($dialect->customParameters !== null) {
            $columns[] = ['heading' => 'Custom parameters', 'means' => 'custom'];
        }
        foreach (Setting::cases() as $setting) {
            if ($setting->choices($dialect) !== []) {
                $columns[] = [
                    'heading' => self::SETTINGS[$setting->value],
                    'means' => "setting.{$setting->value}",
                ];
            }
        }

        return $columns;
    }
}
