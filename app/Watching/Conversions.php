<?php

namespace App\Watching;

use Illuminate\Support\Facades\DB;

/** Conversions as people see them. */
final class Conversions
{
    /**
     * @param list<int> $arrivals
     * @return array<int, array<string, mixed>> by arrival: name, value, currency, and whether it counts
     */
    public static function of(array $arrivals): array
    {
        $told = [];
        foreach (DB::table('conversions')->whereIntegerInRaw('arrival_id', $arrivals)->get() as $c) {
            $told[(int) $c->arrival_id] = [
                'name' => $c->name,
                'value' => $c->value === null ? null : (int) $c->value,
                'currency' => $c->currency,
                'counts' => match (true) {
                    (bool) $c->is_test => 'test',
                    (bool) $c->is_repeated => 'repeated',
                    default => 'yes',
                },
            ];
        }

        return $told;
    }
}
