<?php

namespace App\Arrivals;

use App\Collecting\Incoming;
use App\Collecting\Row;
use App\Models\Collector;
use App\Support\Text;
use App\Watching\Sharing;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Watch\Instant;

/** Keeps what was taken back of orders, each once; it is taken from what the order has counted for. */
final readonly class TakenBack
{
    public function __construct(private Sharing $sharing) {}

    /**
     * @param mixed $refund `{id, order, at, value}`
     * @return array<string, mixed>|null a row of the table; null: it is none
     */
    public static function read(Collector $collector, mixed $refund): ?array
    {
        $of = is_array($refund) ? $refund + ['id' => null, 'order' => null, 'at' => null, 'value' => null] : [];
        $at = is_string($of['at'] ?? null) ? Instant::read($of['at']) : null;
        $id = $of['id'] ?? null;

        return $at !== null
            && (is_int($id) || (is_string($id) && $id !== ''))
            && is_int($of['value'])
            && abs($of['value']) <= config('limits.conversion_value')
            && is_string($of['order'])
            && $of['order'] !== ''
            ? [
                'collector_id' => $collector->id,
                'external_id' => is_int($id) ? $id : Incoming::numberOf($id),
                'order_number' => Text::fit($of['order'], 128),
                'at' => Row::instant($at),
                'value' => $of['value'],
            ]
            : null;
    }

    /**
     * @param list<array<string, mixed>> $rows
     * @return int how many were not known
     */
    public function keep(Collector $collector, array $rows): int
    {
        if ($rows === []) {
            return 0;
        }

        return DB::transaction(function () use ($collector, $rows): int {
            $new = DB::table('refunds')->insertOrIgnore($rows);
            $this->sharing->ofOrders(
                $collector->client,
                $collector->id,
                array_values(array_unique(array_column($rows, 'order_number'))),
            );

            return $new;
        }, 3);
    }
}
