<?php

namespace App\Collecting;

use App\Support\Text;
use Vestigon\Core\Url\Query;
use Vestigon\Core\Watch\Instant;

/** An arrival, as its table has it; of no ad yet. */
final class Row
{
    /**
     * @param list<Incoming> $all
     * @return list<array<string, mixed>>
     */
    public static function all(Site $site, array $all): array
    {
        return array_map(static fn (Incoming $one): array => self::of($site, $one), $all);
    }

    /** @return array<string, mixed> */
    private static function of(Site $site, Incoming $one): array
    {
        $event = $one->event;
        $url = Text::fit($event->url, $site->limits->url);
        $values = [];
        foreach (array_slice(Query::read($url), 0, $site->limits->pairs) as [$key, $value]) {
            $values[$key] ??= $value;
        }
        $short = static fn (string $key): string => Text::fit($values[$key] ?? '', 255);
        $origin = $event->isView() ? $site->origins->of($event) : $site->origins->none();

        return [
            'client_id' => $site->client,
            'collector_id' => $site->id,
            'external_id' => $one->number,
            'at' => self::instant($event->at),
            'kind' => $event->kind->value,
            'url' => $url,
            'referrer' => Text::fit($event->referrer, 2000),
            'visitor' => $event->visitor === null ? null : Text::fit($event->visitor, 64),
            'device' => $one->device,
            'told_source' => Text::fit($origin->keys['source'], 255),
            'told_medium' => Text::fit($origin->keys['medium'], 255),
            'family' => $origin->family,
            'platform' => $origin->platform ?? '',
            'source' => $short('utm_source'),
            'medium' => $short('utm_medium'),
            'campaign' => $short('utm_campaign'),
            'term' => $short('utm_term'),
            'content' => $short('utm_content'),
            'click_id' => Text::fit($origin->click ?? ($event->click ?? ''), 128),
            'keyword' => '',
            'placement' => '',
            'node_id' => null,
            'matched_by' => null,
        ];
    }

    /** As the database has instants. */
    public static function instant(int $at): string
    {
        return str_replace(['T', 'Z'], [' ', ''], Instant::text($at));
    }
}
