<?php

namespace App\Arrivals;

use App\Models\Arrival;
use App\Models\Collector;
use App\Watching\Told;
use Vestigon\Core\Url\Query;
use Vestigon\Core\Watch\Event;
use Vestigon\Core\Watch\EventKind;
use Vestigon\Core\Watch\Origins;

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
        $origins = $this->told->origins($collector->client);

        return array_map(static fn (array $item): array => self::row($collector, $item, $origins), $items);
    }

    /** @param list<array<string, mixed>> $rows */
    public function keep(array $rows): int
    {
        return Arrival::query()->insertOrIgnore($rows);
    }

    /**
     * @param array<string, mixed> $item
     * @return array<string, mixed>
     */
    private static function row(Collector $collector, array $item, Origins $origins): array
    {
        $url = mb_substr(mb_scrub((string) ($item['url'] ?? '')), 0, config('limits.arrival_url'));
        $values = [];
        foreach (array_slice(Query::read($url), 0, config('limits.arrival_pairs')) as [$key, $value]) {
            $values[$key] ??= $value;
        }
        $short = static fn (string $key): string => mb_substr($values[$key] ?? '', 0, 255);
        $referrer = mb_substr(mb_scrub((string) ($item['referrer'] ?? '')), 0, 2000);
        $origin = $origins->of(new Event('', (string) $collector->id, 0, EventKind::View, $url, $referrer));

        return [
            'client_id' => $collector->client_id,
            'collector_id' => $collector->id,
            'external_id' => (int) ($item['id'] ?? 0),
            'at' => (new \DateTimeImmutable((string) ($item['at'] ?? 'now')))
                ->setTimezone(new \DateTimeZone('UTC'))
                ->format('Y-m-d H:i:s.v'),
            'url' => $url,
            'referrer' => $referrer,
            'told_source' => mb_substr($origin->keys['source'], 0, 255),
            'told_medium' => mb_substr($origin->keys['medium'], 0, 255),
            'family' => $origin->family,
            'source' => $short('utm_source'),
            'medium' => $short('utm_medium'),
            'campaign' => $short('utm_campaign'),
            'term' => $short('utm_term'),
            'content' => $short('utm_content'),
            'click_id' => mb_substr($origin->click ?? '', 0, 128),
            'node_id' => null,
            'matched_by' => null,
            'visitor' => isset($item['visitor']) ? mb_substr(mb_scrub((string) $item['visitor']), 0, 64) : null,
        ];
    }
}
