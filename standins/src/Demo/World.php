<?php

declare(strict_types=1);

namespace Standins\Demo;

use Standins\Store;

/** All demo accounts on all platforms. Everything in them is invented. */
final class World
{
    public static function fill(Store $store, int $port): void
    {
        Islands::fill($store, $port);
        Holidays::fill($store, "http://velmar.localhost:{$port}");
        Museum::fill($store, "http://ninefold.localhost:{$port}");
    }
}
