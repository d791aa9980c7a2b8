<?php

declare(strict_types=1);

namespace Standins\Platforms;

use Standins\Ads\Platform;

/** The ad platforms of this small world. */
final class All
{
    public static function at(string $host): ?Platform
    {
        foreach (self::list() as $platform) {
            if ($platform->host === $host) {
                return $platform;
            }
        }

        return null;
    }

    /** @return list<Platform> */
    public static function list(): array
    {
        return [
            new Northquay(),
            new Pellworth(),
            new Guildloft(),
            new Hearthring(),
            new Mossfeed(),
            new Reedrail(),
            new Bannerloom(),
            new Oldgate(),
        ];
    }
}
