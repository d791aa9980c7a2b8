<?php

namespace App\Collecting;

/** What a report is held to; see config/limits.php. */
final readonly class Limits
{
    public function __construct(
        public int $ofSite,
        public int $ofAddress,
        public int $bytes,
        public int $events,
        public int $days,
        public int $value,
        public int $url,
        public int $pairs,
    ) {}

    /** @param array<string, mixed> $all as config/limits.php has them */
    public static function of(array $all): self
    {
        return new self(
            $all['collect_site'],
            $all['collect_address'],
            $all['collect_bytes'],
            $all['collect_events'],
            $all['collect_days'],
            $all['conversion_value'],
            $all['arrival_url'],
            $all['arrival_pairs'],
        );
    }
}
