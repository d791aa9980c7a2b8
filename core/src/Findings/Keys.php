<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Plan\Plan;

/** Parameter keys that reports are made of: the plan's, and the five UTM keys (common practice). */
final class Keys
{
    public const UTM = ['utm_source', 'utm_medium', 'utm_campaign', 'utm_term', 'utm_content'];

    /** @return list<string> */
    public static function of(?Plan $plan): array
    {
        return array_values(array_unique([...$plan?->keys() ?? [], ...self::UTM]));
    }
}
