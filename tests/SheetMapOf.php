<?php

namespace Tests;

use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\Shipped;

/** A sheet map for tests. */
final class SheetMapOf
{
    /** @return array<string, mixed> of the numbers and landing URLs of a shipped platform's ads */
    public static function ads(string $dialect): array
    {
        return [
            'format' => 'vestigon.sheet-map/1',
            'title' => 'Desk',
            'dialect' => $dialect,
            'tables' => [
                [
                    'title' => 'adverts',
                    'level' => Shipped::dialect($dialect)?->levelOf(Role::Ad)?->id,
                    'columns' => [
                        ['heading' => 'Advert no.', 'means' => 'id'],
                        ['heading' => 'Title', 'means' => 'name'],
                        ['heading' => 'Link', 'means' => 'slot.landing'],
                    ],
                ],
            ],
        ];
    }
}
