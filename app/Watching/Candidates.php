<?php

namespace App\Watching;

use App\Collecting\Row;
use App\Models\Client;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Watch\Attribution;

/** What conversions may count for: sessions that may have led to them, ads of clicks that they name. */
final readonly class Candidates
{
    public function __construct(private Elements $elements) {}

    /**
     * @param Collection<int, object> $conversions
     * @return array<string, list<object>> as they began, by visitor (`v`) and by click ID (`c`)
     */
    public function sessions(
        Client $client,
        Collection $conversions,
        Attribution $attribution,
        Tables $tables,
    ): array {
        $columns = ['id', 'visitor', 'click_id', 'begin', 'collector_id', ...Elements::COLUMNS];
        $since = Row::instant($attribution->since(Gathering::at($conversions->min('at'))));
        $sessions = static fn () => $tables
            ->sessions()
            ->where('is_tracked', true)
            ->where('begin', '>=', $since)
            ->orderBy('begin')
            ->orderBy('id');
        $found = [];
        $byVisitor = $conversions->where('click_id', '')->whereNotNull('visitor')->groupBy('collector_id');
        foreach ($byVisitor as $collector => $some) {
            $all = $sessions()
                ->where('collector_id', $collector)
                ->whereIn('visitor', $some->pluck('visitor')->unique()->values())
                ->get($columns);
            foreach ($all as $s) {
                $found["v{$collector} {$s->visitor}"][] = $s;
            }
        }
        $clicks = $conversions->pluck('click_id')->filter()->unique()->values();
        $all = $clicks->isEmpty()
            ? []
            : $sessions()->where('client_id', $client->id)->whereIn('click_id', $clicks)->get($columns);
        foreach ($all as $s) {
            $found["c{$s->click_id}"][] = $s;
        }

        return $found;
    }

    /**
     * @param Collection<int, object> $conversions
     * @return array<string, int> by collector and order
     */
    public static function takenBack(Collection $conversions): array
    {
        $taken = [];
        foreach ($conversions->whereNotNull('order_number')->groupBy('collector_id') as $collector => $some) {
            $sums = DB::table('refunds')
                ->where('collector_id', $collector)
                ->whereIn('order_number', $some->pluck('order_number'))
                ->groupBy('order_number')
                ->selectRaw('order_number, sum(value) value')
                ->pluck('value', 'order_number');
            foreach ($sums as $order => $sum) {
                $taken["{$collector} {$order}"] = (int) $sum;
            }
        }

        return $taken;
    }

    /**
     * @param Collection<int, object> $conversions
     * @return array<int, array<string, int|null>> the ad of the click that a conversion names, as the platform tells
     */
    public function adsOfClicks(Collection $conversions): array
    {
        $ads = DB::table('arrivals')
            ->whereIntegerInRaw('id', $conversions->where('click_id', '<>', '')->pluck('arrival_id')->all())
            ->whereNotNull('node_id')
            ->pluck('node_id', 'id');
        $above = $this->elements->above(array_map(intval(...), $ads->unique()->values()->all()));

        return $ads->map(static fn (int $ad): ?array => $above[$ad] ?? null)->filter()->all();
    }
}
