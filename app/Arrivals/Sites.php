<?php

namespace App\Arrivals;

use App\Collecting\Limits;
use App\Collecting\Site;
use App\Models\Collector;
use App\Watching\Told;

/** What is known of a site when something of it comes in. */
final readonly class Sites
{
    public function __construct(private Told $told) {}

    public function of(Collector $collector): Site
    {
        return new Site(
            $collector->id,
            $collector->client_id,
            $collector->hosts ?? [],
            $this->told->origins($collector->client),
            Limits::of(config('limits')),
        );
    }
}
