<?php

namespace App\Arrivals;

use App\Connectors\Connectors;
use App\Connectors\Line;
use App\Connectors\PlatformTrouble;
use App\Models\Account;
use App\Models\Arrival;
use App\Models\Collector;
use App\Models\Node;
use App\Watching\Told;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Plan\Parameter;
use Vestigon\Core\Url\Query;

/** Reads new arrivals from the analytics collector and finds the ads they came from. */
final class Reader
{
    public function __construct(private readonly Connectors $connectors, private readonly Told $told) {}

    /** @return int how many are new */
    public function read(Collector $collector): int
    {
        try {
            $items =
                (new Line('Tallyroom', config('platforms.tallyroom.address')))->get(
                    '/v1/arrivals',
                    ['after' => $collector->read_up_to, 'site' => $collector->site],
                    $collector->credentials,
                )['items'] ?? null;
            if (! is_array($items)) {
                throw PlatformTrouble::nonsense('Tallyroom', 'no list of arrivals');
            }
        } catch (PlatformTrouble $e) {
            $collector->update(['problem' => $e->getMessage(), 'read_at' => now()]);

            return 0;
        }
        $clickIds = $this->told->clickParameters($collector->client);
        $rows = array_map(fn (array $item): array => self::row($collector, $item, $clickIds), $items);
        $this->match($collector, $rows);
        DB::transaction(static function () use ($collector, $rows): void {
            Arrival::query()->insertOrIgnore($rows);
            // of two who read at once, none sets the other back
            Collector::query()
                ->whereKey($collector->id)
                ->update([
                    'read_up_to' => DB::raw(
                        'greatest(read_up_to, '.max([0, ...array_column($rows, 'external_id')]).')',
                    ),
                    'problem' => null,
                    'read_at' => now(),
                ]);
        });

        return count($rows);
    }

    /**
     * @param array<string, mixed> $item
     * @param list<string> $clickIds parameters that carry them
     * @return array<string, mixed>
     */
    private static function row(Collector $collector, array $item, array $clickIds): array
    {
        $url = mb_substr(mb_scrub((string) ($item['url'] ?? '')), 0, config('limits.arrival_url'));
        $values = [];
        foreach (array_slice(Query::read($url), 0, config('limits.arrival_pairs')) as [$key, $value]) {
            $values[$key] ??= $value;
        }
        $short = static fn (string $key): string => mb_substr($values[$key] ?? '', 0, 255);
        $clickId = '';
        foreach ($clickIds as $key) {
            $clickId = mb_substr($values[$key] ?? $clickId, 0, 128);
        }

        return [
            'client_id' => $collector->client_id,
            'collector_id' => $collector->id,
            'external_id' => (int) ($item['id'] ?? 0),
            'at' => (new \DateTimeImmutable((string) ($item['at'] ?? 'now')))
                ->setTimezone(new \DateTimeZone('UTC'))
                ->format('Y-m-d H:i:s.v'),
            'url' => $url,
            'referrer' => mb_substr(mb_scrub((string) ($item['referrer'] ?? '')), 0, 2000),
            'source' => $short('utm_source'),
            'medium' => $short('utm_medium'),
            'campaign' => $short('utm_campaign'),
            'term' => $short('utm_term'),
            'content' => $short('utm_content'),
            'click_id' => $clickId,
            'node_id' => null,
            'matched_by' => null,
        ];
    }

    /** @param list<array<string, mixed>> $rows */
    private function match(Collector $collector, array &$rows): void
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
