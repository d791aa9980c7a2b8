<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** What a row says of its element on a day. */
final readonly class Figures
{
    /**
     * @param string $day YYYY-MM-DD
     * @param array<string, string> $numbers impressions, clicks, cost, conversions, value, as far as they are filled:
     *     decimal numbers with a point
     */
    public function __construct(public string $day, public array $numbers) {}
}
