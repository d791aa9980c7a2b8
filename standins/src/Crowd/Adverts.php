<?php

declare(strict_types=1);

namespace Standins\Crowd;

use Standins\Ads\AdPath;
use Standins\Platforms\All;
use Standins\Store;

/** All live ads of this small world, some of which draw many. */
final class Adverts
{
    /** So many clicks a day in all. */
    private const CLICKS = 860;

    /** What a click costs, in cents, on the average. */
    private const PRICES = ['northquay' => 62, 'pellworth' => 48, 'guildloft' => 190, 'hearthring' => 35];

    /** @return list<Advert> */
    public static function in(Store $store, int $seed): array
    {
        $settings = $customers = [];
        foreach ($store->rows('select platform, id, customer, settings from accounts') as $a) {
            $settings["{$a['platform']} {$a['id']}"] = json_decode((string) $a['settings'], true);
            $customers["{$a['platform']} {$a['id']}"] = (string) $a['customer'];
        }
        $rows = [];
        foreach ($store->rows('select * from nodes order by platform, account, position') as $row) {
            $rows["{$row['platform']} {$row['id']}"] = $row;
        }
        $found = [];
        $all = 0.0;
        foreach ($rows as $row) {
            $platform = All::at((string) $row['platform']);
            if ($platform === null || $row['level'] !== $platform->adLevel() || $row['standing'] !== 'live') {
                continue;
            }
            $path = [];
            for ($at = $row; $at !== null; $at = $rows["{$row['platform']} {$at['parent']}"] ?? null) {
                $path = [$at['level'] => $at, ...$path];
            }
            $group = array_slice($path, -2, 1);
            $draw = (new Chance("{$seed} ad {$row['platform']} {$row['id']}"))->share() ** 4;
            $all += $draw;
            $found[] = [$platform, $row, $path, reset($group), $draw];
        }
        $adverts = [];
        foreach ($found as [$platform, $row, $path, $group, $draw]) {
            $account = "{$row['platform']} {$row['account']}";
            $adverts[] = new Advert(
                $platform,
                (string) $row['account'],
                (string) $row['id'],
                $customers[$account],
                new AdPath($path),
                json_decode((string) ($group['keywords'] ?? '[]'), true) ?: [],
                $settings[$account],
                ($draw / $all) * self::CLICKS,
                self::PRICES[$row['platform']] ?? 22,
            );
        }

        return $adverts;
    }
}
