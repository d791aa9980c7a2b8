<?php

namespace App\Connectors;

use Vestigon\Core\Document\Cursor;

/** What a platform says of an ad on a day. */
final readonly class Figures
{
    /**
     * @param string $day of the account, YYYY-MM-DD
     * @param string $ad its id on the platform
     * @param int $cost in minor units
     * @param string $currency ISO 4217
     * @param int $conversions that the platform claims, by the day of the click
     * @param int $value of those, in minor units
     */
    public function __construct(
        public string $day,
        public string $ad,
        public int $impressions,
        public int $clicks,
        public int $cost,
        public string $currency,
        public int $conversions,
        public int $value,
    ) {}

    public static function read(Cursor $c): self
    {
        $day = $c->at('day')->string();
        if (preg_match('/^\d{4}-\d\d-\d\d$/D', $day) !== 1) {
            $c->at('day')->fail('a day like 2026-10-05 is wanted');
        }

        return new self(
            $day,
            $c->at('node')->text(),
            $c->at('impressions')->atLeast(0),
            $c->at('clicks')->atLeast(0),
            $c->at('cost')->int(),
            $c->at('currency')->string(),
            $c->has('conversions') ? $c->at('conversions')->atLeast(0) : 0,
            $c->has('value') ? $c->at('value')->int() : 0,
        );
    }
}
