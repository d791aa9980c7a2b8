<?php

declare(strict_types=1);

namespace Standins\Crowd;

/** What there is to see and to buy on the sites of this small world. */
final class Pages
{
    private const PAGES = [
        'velmar' => ['/', '/timetable', '/cabins', '/islands/skerrow', '/islands/orrin', '/prices', '/book'],
        'ninefold' => ['/', '/opening-hours', '/floors', '/tickets', '/courses', '/book'],
    ];

    /** What is sold: id, name, price in cents. */
    private const GOODS = [
        'velmar' => [
            ['foot', 'Foot passenger, return', 1900],
            ['car', 'Car, return', 4900],
            ['cabin', 'Cabin for two', 7200],
            ['weekend', 'Weekend on an island', 15900],
        ],
        'ninefold' => [
            ['day', 'Day ticket', 1400],
            ['family', 'Family ticket', 3600],
            ['evening', 'Late opening', 2200],
            ['course', 'A day’s course', 12500],
        ],
    ];

    public static function any(string $site, Chance $chance): string
    {
        return $chance->oneOf(self::PAGES[$site]);
    }

    /** @return non-empty-list<array{id: string, name: string, quantity: int, value: int}> */
    public static function basket(string $site, Chance $chance): array
    {
        $basket = [];
        foreach (range(1, $chance->oneOf([1, 1, 1, 2, 2, 3])) as $ignored) {
            [$id, $name, $price] = $chance->oneOf(self::GOODS[$site]);
            $quantity = $chance->oneOf([1, 1, 2, 2, 4]);
            $basket[$id] ??= [
                'id' => $id,
                'name' => $name,
                'quantity' => $quantity,
                'value' => $price * $quantity,
            ];
        }

        return array_values($basket);
    }
}
