<?php

namespace App\Arrivals;

use App\Collecting\Arrived;
use App\Models\Arrival;
use App\Results\ResultDays;
use App\Watching\Conversions;
use App\Watching\Sharing;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Watch\EventKind;
use Vestigon\Core\Watch\Instant;

/**
 * All that is kept of a visitor of a site: taken away, or forgotten, as people may ask for (GDPR, articles 15, 17, 20;
 * named from memory).
 */
final readonly class Visitor
{
    private const ROWS = 1000;

    public function __construct(private Sharing $sharing, private Arrived $arrived) {}

    /**
     * @param Arrival $arrival any of theirs; of somebody who is not known again it is all there is
     * @return array<string, mixed> as docs/formats/openapi.yaml says
     */
    public function records(Arrival $arrival): array
    {
        $all = self::arrivals($arrival)->orderBy('at')->orderBy('id')->get();
        $conversions = Conversions::of($all->where('kind', EventKind::Convert)->pluck('id')->all());

        return [
            'format' => 'vestigon.visitor/1',
            'visitor' => $arrival->visitor,
            'events' => $all
                ->map(
                    static fn (Arrival $a): array => [
                        'at' => Instant::text($a->event()->at),
                        'kind' => $a->kind->value,
                        'url' => $a->url,
                        'referrer' => $a->referrer,
                        'device' => $a->device,
                        'clickId' => $a->click_id,
                        'conversion' => $conversions[$a->id] ?? null,
                    ],
                )
                ->all(),
        ];
    }

    /**
     * Nothing of it is kept, and results are what they are without it. That its numbers were taken stays, so that it
     * does not come again.
     *
     * @return int how many records there were
     */
    public function forget(Arrival $arrival): int
    {
        return DB::transaction(function () use ($arrival): int {
            $rows = self::arrivals($arrival)->lockForUpdate()->get(['id', 'at', 'visitor']);
            $this->arrived->mark(
                $rows
                    ->map(
                        static fn (Arrival $a): array => [
                            'id' => $a->id,
                            'collector_id' => $arrival->collector_id,
                            'at' => $a->at->format('Y-m-d H:i:s.v'),
                            'visitor' => $a->visitor,
                        ],
                    )
                    ->all(),
            );
            $days = $orders = [];
            $readings = $arrival->client->readings()->pluck('id')->all();
            foreach ($rows->pluck('id')->chunk(self::ROWS) as $ids) {
                $shares = DB::table('shares')->whereIntegerInRaw('conversion_id', $ids->all());
                array_push($days, ...(clone $shares)->pluck('day')->all());
                $shares->delete();
                $conversions = DB::table('conversions')->whereIntegerInRaw('arrival_id', $ids->all());
                $named = (clone $conversions)->whereNotNull('order_number');
                array_push($orders, ...$named->pluck('order_number')->all());
                $conversions->delete();
                self::forgetMeant($readings, $ids->all());
            }
            DB::statement('call forget_visitor(?, ?, ?)', [
                $arrival->collector_id,
                $arrival->visitor,
                $arrival->id,
            ]);
            // an order of theirs that others have sent too is counted there now
            $this->sharing->ofOrders($arrival->client, $arrival->collector_id, $orders);
            ResultDays::changed($arrival->client_id, $days);

            return $rows->count();
        }, 3);
    }

    /**
     * Neither is it kept in what was read as it was meant.
     *
     * @param list<int> $readings
     * @param list<int> $arrivals
     */
    private static function forgetMeant(array $readings, array $arrivals): void
    {
        foreach (['meant_sessions' => 'id', 'meant_shares' => 'conversion_id'] as $table => $column) {
            DB::table($table)->whereIn('reading_id', $readings)->whereIntegerInRaw($column, $arrivals)->delete();
        }
    }

    /** @return Builder<Arrival> */
    private static function arrivals(Arrival $arrival): Builder
    {
        return $arrival->visitor === null
            ? Arrival::query()->whereKey($arrival->id)
            : Arrival::query()->where(['collector_id' => $arrival->collector_id, 'visitor' => $arrival->visitor]);
    }
}
