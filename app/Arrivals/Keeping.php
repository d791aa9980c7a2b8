<?php

namespace App\Arrivals;

use App\Models\Collector;
use App\Support\Bulk;
use App\Support\Text;
use App\Watching\Items;
use App\Watching\Told;
use App\Watching\Touched;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Url\Query;
use Vestigon\Core\Watch\Instant;
use Vestigon\Core\Watch\Origins;

/** Keeps what has arrived, each arrival once. */
final readonly class Keeping
{
    private const AT_ONCE = 2000;

    public function __construct(private Told $told) {}

    /**
     * @param list<Incoming> $all
     * @return list<array<string, mixed>> rows of the table, of no ad yet
     */
    public function rows(Collector $collector, array $all): array
    {
        $origins = $this->told->origins($collector->client);

        return array_map(static fn (Incoming $one): array => self::row($collector, $one, $origins), $all);
    }

    /**
     * @param list<Incoming> $all
     * @param list<array<string, mixed>> $rows of the same
     * @return int how many were not known
     */
    public function keep(Collector $collector, array $all, array $rows): int
    {
        return DB::transaction(function () use ($collector, $all, $rows): int {
            $new = 0;
            foreach (array_chunk($rows, self::AT_ONCE, true) as $some) {
                $kept = $this->keepSome($collector, array_intersect_key($all, $some), $some);
                Touched::mark($collector, $kept);
                $new += count($kept);
            }

            return $new;
        });
    }

    /**
     * @param array<int, Incoming> $all
     * @param array<int, array<string, mixed>> $rows
     * @return list<array<string, mixed>> those that were not known, with their ids
     */
    private function keepSome(Collector $collector, array $all, array $rows): array
    {
        $ids = array_map(
            static fn (array $row): array => [
                'collector_id' => $collector->id,
                'external_id' => $row['external_id'],
                'day' => substr($row['at'], 0, 10),
            ],
            array_values($rows),
        );
        $told = Bulk::insert('arrival_ids', $ids, 'external_id', 'ignore');
        $unknown = array_fill_keys(array_column($told, 'external_id'), true);
        $new = [];
        foreach ($rows as $i => $row) {
            if (isset($unknown[$row['external_id']])) {
                unset($unknown[$row['external_id']]); // the first that came stays
                $new[$i] = $row;
            }
        }
        if ($new === []) {
            return [];
        }
        $numbers = array_column(
            Bulk::insert('arrivals', array_values($new), 'id, external_id'),
            'id',
            'external_id',
        );
        $conversions = $items = [];
        foreach ($new as $i => $row) {
            $new[$i]['id'] = (int) $numbers[$row['external_id']];
            if ($row['kind'] === 'convert') {
                $conversions[] = self::conversion($new[$i], $all[$i]);
                array_push($items, ...$all[$i]->event->items);
            }
        }
        DB::table('conversions')->insert($conversions);
        Items::name($collector->client_id, $items);

        return array_values($new);
    }

    /**
     * @param array<string, mixed> $row
     * @return array<string, mixed>
     */
    private static function conversion(array $row, Incoming $one): array
    {
        $event = $one->event;

        return [
            'arrival_id' => $row['id'],
            'client_id' => $row['client_id'],
            'collector_id' => $row['collector_id'],
            'at' => $row['at'],
            'visitor' => $row['visitor'],
            'order_number' => $event->order === null ? null : Text::fit($event->order, 128),
            'click_id' => $row['click_id'],
            'value' => $event->value,
            'currency' => $event->currency,
            'name' => Text::fit($event->name ?? '', 120),
            'items' => Items::kept($event->items),
            'is_test' => $event->isTest,
            'came_at' => now()->format('Y-m-d H:i:s.v'),
        ];
    }

    /** @return array<string, mixed> */
    private static function row(Collector $collector, Incoming $one, Origins $origins): array
    {
        $event = $one->event;
        $url = Text::fit($event->url, config('limits.arrival_url'));
        $values = [];
        foreach (array_slice(Query::read($url), 0, config('limits.arrival_pairs')) as [$key, $value]) {
            $values[$key] ??= $value;
        }
        $short = static fn (string $key): string => Text::fit($values[$key] ?? '', 255);
        $origin = $event->isView() ? $origins->of($event) : $origins->none();

        return [
            'client_id' => $collector->client_id,
            'collector_id' => $collector->id,
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
