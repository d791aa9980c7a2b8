<?php

namespace App\Watching;

use App\Collecting\Row;
use App\Models\Client;
use App\Results\ResultDays;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Watch\Attribution;
use Vestigon\Core\Watch\Days;
use Vestigon\Core\Watch\Share;

/**
 * Works out what conversions count for (watch.md §4): of the sessions that may have led to one, those that the client's
 * setting takes.
 */
final readonly class Sharing
{
    private const ROWS = 1000;

    /** What is to be known of a conversion. */
    public const COLUMNS = [
        'arrival_id',
        'collector_id',
        'at',
        'visitor',
        'order_number',
        'click_id',
        'value',
        'currency',
        'is_test',
        'is_repeated',
        'session_id',
        'items',
    ];

    public function __construct(private Candidates $candidates) {}

    /**
     * @param array<int, int> $in conversion → the session that it is in: those whose sessions have been made anew
     * @param list<string> $clicks click IDs of sessions that have been made anew: what names one may count for them now
     */
    public function again(Client $client, array $in, array $clicks = []): void
    {
        foreach (array_chunk($in, self::ROWS, true) as $some) {
            $cases = '';
            foreach ($some as $conversion => $session) {
                $cases .= "when {$conversion} then {$session} ";
            }
            DB::update(
                "update conversions set session_id = case arrival_id {$cases} end where arrival_id in (".
                    implode(',', array_keys($some)).
                    ')',
            );
        }
        $ids = array_keys($in);
        foreach (array_chunk($clicks, self::ROWS) as $some) {
            array_push(
                $ids,
                ...DB::table('conversions')
                    ->where('client_id', $client->id)
                    ->whereIn('click_id', $some)
                    ->pluck('arrival_id')
                    ->all(),
            );
        }
        $this->ofConversions($client, $ids);
    }

    /**
     * What was taken back of orders has changed.
     *
     * @param list<string> $orders
     */
    public function ofOrders(Client $client, int $collector, array $orders): void
    {
        $this->ofConversions(
            $client,
            DB::table('conversions')
                ->where('collector_id', $collector)
                ->whereIn('order_number', $orders)
                ->pluck('arrival_id')
                ->all(),
        );
    }

    /** @param list<int> $ids */
    private function ofConversions(Client $client, array $ids): void
    {
        foreach (array_chunk(array_values(array_unique($ids)), self::ROWS) as $some) {
            $conversions = $this->withTheirOrders($some);
            $this->tellRepeated($conversions);
            $before = DB::table('shares')
                ->whereIntegerInRaw('conversion_id', $conversions->pluck('arrival_id')->all())
                ->distinct()
                ->pluck('day');
            ResultDays::changed($client->id, $before);
            $this->share($client, $conversions->where('is_repeated', 0)->where('is_test', 0)->values());
            DB::table('shares')
                ->whereIntegerInRaw(
                    'conversion_id',
                    $conversions
                        ->filter(static fn (object $c): bool => $c->is_repeated || $c->is_test)
                        ->pluck('arrival_id')
                        ->all(),
                )
                ->delete();
        }
    }

    /**
     * @param list<int> $ids
     * @return Collection<int, object> with all others of the same orders
     */
    private function withTheirOrders(array $ids): Collection
    {
        $named = DB::table('conversions')->whereIntegerInRaw('arrival_id', $ids)->get(self::COLUMNS);
        $all = $named->keyBy('arrival_id');
        foreach ($named->whereNotNull('order_number')->groupBy('collector_id') as $collector => $some) {
            $others = DB::table('conversions')
                ->where('collector_id', $collector)
                ->whereIn('order_number', $some->pluck('order_number')->unique()->values())
                ->get(self::COLUMNS);
            $all = $all->union($others->keyBy('arrival_id'));
        }

        return $all->values();
    }

    /** @param Collection<int, object> $conversions */
    private function tellRepeated(Collection $conversions): void
    {
        $changed = [0 => [], 1 => []];
        $taken = [];
        foreach ($conversions->sortBy([['at', 'asc'], ['arrival_id', 'asc']]) as $c) {
            $order = "{$c->collector_id} {$c->order_number}";
            $isRepeated = (int) ($c->order_number !== null && ! $c->is_test && isset($taken[$order]));
            if (! $c->is_test) {
                $taken[$order] = true;
            }
            if ($isRepeated !== (int) $c->is_repeated) {
                $changed[$isRepeated][] = $c->arrival_id;
                $c->is_repeated = $isRepeated;
            }
        }
        foreach ($changed as $isRepeated => $ids) {
            DB::table('conversions')
                ->whereIntegerInRaw('arrival_id', $ids)
                ->update(['is_repeated' => $isRepeated]);
        }
    }

    /** @param Collection<int, object> $conversions that count, with the number of the session that each is in */
    public function share(Client $client, Collection $conversions, Tables $tables = new Tables()): void
    {
        if ($conversions->isEmpty()) {
            return;
        }
        $attribution = Settings::of($client)->attribution;
        $sessions = $this->candidates->sessions($client, $conversions, $attribution, $tables);
        $in = $tables->sessions()
            ->whereIntegerInRaw('id', $conversions->pluck('session_id')->filter()->all())
            ->get(['id', ...Elements::COLUMNS])
            ->keyBy('id');
        $taken = Candidates::takenBack($conversions);
        $ads = $this->candidates->adsOfClicks($conversions);
        $days = new Days($client->time_zone);
        $rows = [];
        foreach ($conversions as $c) {
            $at = Gathering::at($c->at);
            $known =
                $c->click_id === ''
                    ? $sessions["v{$c->collector_id} {$c->visitor}"] ?? []
                    : $sessions["c{$c->click_id}"] ?? [];
            $since = Row::instant($attribution->since($at));
            $fitting = array_values(
                array_filter(
                    $known,
                    static fn (object $s): bool => $s->begin >= $since
                        && $s->begin <= $c->at
                        && ($c->click_id !== '' || $c->visitor !== null),
                ),
            );
            $ad = $fitting === [] && $c->click_id !== '' ? $ads[$c->arrival_id] ?? null : null;
            $chosen = match (true) {
                $fitting !== [] => $attribution->chosen($fitting),
                $ad !== null => [(object) (['id' => null] + $ad)],
                default => [
                    $in[$c->session_id] ??
                    (object) (['id' => $c->session_id] + array_fill_keys(Elements::COLUMNS, null)),
                ],
            };
            $values = Attribution::split((int) $c->value, count($chosen));
            $parts = Attribution::split(Share::WHOLE, count($chosen));
            $back = Attribution::split($taken["{$c->collector_id} {$c->order_number}"] ?? 0, count($chosen));
            $items = Items::of($c->items);
            foreach ($chosen as $n => $session) {
                $row = $tables->mark() + [
                    'conversion_id' => $c->arrival_id,
                    'n' => $n,
                    'client_id' => $client->id,
                    'day' => $days->day($at),
                    'session_id' => $session->id,
                    'part' => $parts[$n],
                    'value' => $values[$n],
                    'net' => $values[$n] - $back[$n],
                    'currency' => $c->currency,
                    'items' => Items::ofShare(
                        $items,
                        $n,
                        count($chosen),
                        $parts[$n],
                        $c->value === null ? null : $values[$n],
                        $back[$n],
                    ),
                ];
                foreach (Elements::COLUMNS as $column) {
                    $row[$column] = $session->{$column};
                }
                $rows[] = $row;
            }
        }
        $tables->shares()->whereIntegerInRaw('conversion_id', $conversions->pluck('arrival_id')->all())->delete();
        foreach (array_chunk($rows, self::ROWS) as $some) {
            $tables->shares()->insert($some);
        }
        if ($tables->reading === null) {
            ResultDays::changed($client->id, array_column($rows, 'day'));
        }
    }
}
