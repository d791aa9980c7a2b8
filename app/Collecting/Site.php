<?php

namespace App\Collecting;

use Vestigon\Core\Watch\Origins;

/** What is known of a site when something of it comes in. */
final readonly class Site
{
    /** @param list<string> $hosts that its pages are on, `*.` before one means all below it; none: it has no pages */
    public function __construct(
        public int $id,
        public int $client,
        public array $hosts,
        public Origins $origins,
        public Limits $limits,
    ) {}
}
