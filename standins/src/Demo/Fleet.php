<?php

declare(strict_types=1);

namespace Standins\Demo;

use Standins\Store;

/**
 * A large account on Northquay, for tests and benches: every ad still has the key of an older agreement in its landing
 * URL.
 */
final class Fleet
{
    private const PER_GROUP = 50;

    private const GROUPS_PER_CAMPAIGN = 20;

    /** @param int $fleet 0 for the first, 1 for the next … */
    public static function fill(Store $store, int $port, int $ads, int $fleet): void
    {
        $b = new Builder($store, 'northquay', 'velmar', 9_000_000 + $fleet * 1_000_000);
        $account = $b->account(
            'NQ-'.(9000 + $fleet),
            'Velmar Fleet',
            ['clickId' => true],
            ['suffix' => 'utm_source=northquay&utm_medium=cpc'],
        );
        $campaign = $group = '';
        for ($i = 0; $i < $ads; $i++) {
            if ($i % (self::PER_GROUP * self::GROUPS_PER_CAMPAIGN) === 0) {
                $campaign = $b->node(
                    $account,
                    'campaign',
                    'Fleet '.intdiv($i, self::PER_GROUP * self::GROUPS_PER_CAMPAIGN),
                    'text',
                );
            }
            if ($i % self::PER_GROUP === 0) {
                $group = $b->node(
                    $campaign,
                    'group',
                    'Deck '.intdiv($i, self::PER_GROUP),
                    null,
                    [],
                    [['text' => "ferry {$i}", 'match' => 'exact']],
                );
            }
            $b->node($group, 'ad', "Sailing {$i}", null, [
                'landing' => "http://velmar.localhost:{$port}/sailing/{$i}?lang=en&utm_source=old",
            ]);
        }
    }
}
