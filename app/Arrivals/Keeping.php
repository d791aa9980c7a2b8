<?php

namespace App\Arrivals;

use App\Models\Arrival;
use App\Models\Collector;
use App\Watching\Told;
use Vestigon\Core\Url\Query;

/** Keeps what has arrived, each arrival once. */
final readonly class Keeping
{
    public function __construct(private Told $told) {}

    /**
     * @param list<array<string, mixed>> $items each with `id` (a number of the collector's), `at`, `url`, `referrer?`,
     *     `visitor?`
     * @return list<array<string, mixed>> rows of the table, of no ad yet
     */
    public function rows(Collector $collector, array $items): array
    {
        $clickIds = $this->told->clickParameters($collector->client);

        return array_map(static fn (array $item): array => self::row($collector, $item, $clickIds), $items);
    }

    /** @param list<array<string, mixed>> $rows */
    public function keep(array $rows): int
    {
        return Arrival::query()->insertOrIgnore($rows);
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
            'visitor' => isset($item['visitor']) ? mb_substr(mb_scrub((string) $item['visitor']), 0, 64) : null,
        ];
    }
}
