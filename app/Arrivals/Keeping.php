<?php

namespace App\Arrivals;

use App\Collecting\Arrived;
use App\Collecting\Incoming;
use App\Models\Collector;
use App\Support\Bulk;
use App\Support\Text;
use App\Watching\Items;
use Illuminate\Support\Facades\DB;

/** Keeps what has arrived, each arrival once. */
final readonly class Keeping
{
    public function __construct(private Arrived $arrived) {}

    /**
     * @param list<Incoming> $all
     * @param list<array<string, mixed>> $rows of the same
     * @return int how many were not known
     */
    public function keep(Collector $collector, array $all, array $rows): int
    {
        return DB::transaction(function () use ($collector, $all, $rows): int {
            $kept = $this->arrived->keep($rows);
            $conversions = $items = [];
            foreach ($kept as $i => $row) {
                if ($row['kind'] === 'convert') {
                    $conversions[] = self::conversion($row, $all[$i]);
                    array_push($items, ...$all[$i]->event->items);
                }
            }
            Bulk::insert('conversions', $conversions);
            Items::name($collector->client_id, $items);

            return count($kept);
        });
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
}
