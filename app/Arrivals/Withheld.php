<?php

namespace App\Arrivals;

use App\Connectors\Line;
use App\Connectors\PlatformTrouble;
use App\Models\Collector;
use Illuminate\Support\Facades\DB;

/** Reads from an analytics how many views were of people who did not consent; nothing else is known of them. */
final class Withheld
{
    public function read(Collector $collector): void
    {
        try {
            $items =
                (new Line('Tallyroom', config('platforms.tallyroom.address')))->get(
                    '/v1/withheld',
                    ['site' => $collector->site],
                    $collector->credentials,
                )['items'] ?? [];
        } catch (PlatformTrouble) {
            return; // it is asked again within the hour, of all days
        }
        $rows = [];
        foreach (is_array($items) ? $items : [] as $item) {
            if (is_string($item['day'] ?? null) && is_int($item['n'] ?? null)) {
                $rows[] = ['collector_id' => $collector->id, 'day' => $item['day'], 'n' => max(0, $item['n'])];
            }
        }
        DB::table('withheld')->upsert($rows, ['collector_id', 'day'], ['n']);
    }
}
