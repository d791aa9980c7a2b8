<?php

namespace App\Arrivals;

use App\Connectors\Connectors;
use App\Connectors\PlatformTrouble;
use App\Models\Account;
use App\Models\Arrival;
use App\Models\Collector;
use App\Models\Node;
use App\Support\Bulk;
use Vestigon\Core\Plan\Parameter;
use Vestigon\Core\Url\Query;

/** Finds the ads that arrivals came from: by the click ID, as the platform tells, else by the parameters. */
final readonly class Matching
{
    private const AT_ONCE = 500;

    /** What was looked for and not found. */
    private const NONE = '';

    public function __construct(private Connectors $connectors) {}

    /** Those that pages have reported and nobody has looked for yet. */
    public function pending(Collector $collector): int
    {
        $arrivals = Arrival::query()
            ->where('collector_id', $collector->id)
            ->whereNull('matched_by')
            ->orderBy('id')
            ->limit(self::AT_ONCE)
            ->get(['id', 'url', 'click_id', 'node_id', 'matched_by'])
            ->map(static fn (Arrival $a): array => $a->getAttributes())
            ->all();
        $this->match($collector, $arrivals);
        Bulk::update(
            'arrivals',
            ['node_id' => 'bigint unsigned', 'matched_by' => 'varchar(16)'],
            array_map(
                static fn (array $a): array => [
                    'id' => $a['id'],
                    'node_id' => $a['node_id'],
                    'matched_by' => $a['matched_by'] ?? self::NONE,
                ],
                $arrivals,
            ),
        );

        return count($arrivals);
    }

    /** @param list<array<string, mixed>> $rows of the table; those whose ad is found get it */
    public function match(Collector $collector, array &$rows): void
    {
        $ids = array_values(array_unique(array_filter(array_column($rows, 'click_id'))));
        $adKeys = $this->keysWithAdIds($collector);
        foreach ($collector->client->accounts()->with('link')->get() as $account) {
            $ads = $this->adsOfClicks($account, $ids);
            $wanted = array_values($ads);
            foreach ($rows as $row) {
                array_push($wanted, ...self::adIds($row, $adKeys));
            }
            $nodes =
                $wanted === []
                    ? collect()
                    : Node::withTrashed()
                        ->where('account_id', $account->id)
                        ->where('is_ad', true)
                        ->whereIn('external_id', array_unique($wanted))
                        ->pluck('id', 'external_id');
            foreach ($rows as &$row) {
                $byClick = $nodes[$ads[$row['click_id']] ?? ''] ?? null;
                $byPairs = $nodes->only(self::adIds($row, $adKeys))->first();
                if ($row['node_id'] === null && ($byClick ?? $byPairs) !== null) {
                    $row['node_id'] = $byClick ?? $byPairs;
                    $row['matched_by'] = $byClick !== null ? 'click-id' : 'parameters';
                }
            }
            unset($row);
        }
    }

    /**
     * @param list<string> $ids
     * @return array<string, string>
     */
    private function adsOfClicks(Account $account, array $ids): array
    {
        try {
            return $ids === []
                ? []
                : $this->connectors->to($account->link)->clicks($account->link, $account->external_id, $ids);
        } catch (PlatformTrouble) {
            return []; // the parameters may still tell
        }
    }

    /** @return list<string> keys of the plan that carry nothing but the ad's number */
    private function keysWithAdIds(Collector $collector): array
    {
        $plan = $collector->client->plan()?->read();

        return array_values(
            array_map(
                static fn (Parameter $p): string => $p->key,
                array_filter(
                    $plan->parameters ?? [],
                    static fn (Parameter $p): bool => count($p->parts) === 1 && $p->parts[0]->field === 'ad.id',
                ),
            ),
        );
    }

    /**
     * @param array<string, mixed> $row
     * @param list<string> $keys
     * @return list<string>
     */
    private static function adIds(array $row, array $keys): array
    {
        $ids = [];
        foreach (array_slice(Query::read($row['url']), 0, config('limits.arrival_pairs')) as [$key, $value]) {
            if (in_array($key, $keys, true) && $value !== '') {
                $ids[] = mb_substr($value, 0, 64);
            }
        }

        return $ids;
    }
}
