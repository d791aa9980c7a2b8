<?php

namespace App\Arrivals;

use App\Collecting\Incoming;
use App\Collecting\Report;
use App\Collecting\Row;
use App\Collecting\Site;
use App\Models\Collector;
use App\Watching\Settings;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Watch\EventReader;
use Vestigon\Core\Watch\Hosts;

/**
 * Takes what pages report. What can't be taken is counted by day and why, and does not hold up the rest; no address of
 * a visitor is kept.
 */
final readonly class Receiving
{
    private const DAY = 86_400_000;

    /** Clocks of servers may be ahead by so much, in milliseconds. */
    private const AHEAD = 3_600_000;

    public function __construct(private Keeping $keeping, private TakenBack $takenBack, private Sites $sites) {}

    /**
     * @param mixed $body as Report reads it
     * @return array{taken: int, refused: array<string, int>}
     */
    public function take(Collector $collector, Site $site, mixed $body): array
    {
        $report = Report::read($site, $body, (int) now()->getPreciseTimestamp(3));

        return $this->told(
            $collector,
            $this->keeping->keep($collector, $report->items, Row::all($site, $report->items)),
            $report->refused,
        );
    }

    /**
     * Conversions that a server hands in, and what was taken back of orders: each counts on its own day, however late
     * it comes.
     *
     * @param mixed $body `{events?: [event of kind convert], refunds?: [{id, order, at, value}]}`
     * @param bool $withViews pages that were seen are taken too, if they are the site's
     * @return array{taken: int, refused: array<string, int>}
     */
    public function handedIn(Collector $collector, mixed $body, bool $withViews = false): array
    {
        $events = is_array($body) ? $body['events'] ?? [] : null;
        $refunds = is_array($body) ? $body['refunds'] ?? [] : null;
        if (! is_array($events) || ! is_array($refunds) || count($events) + count($refunds) === 0) {
            return $this->told($collector, 0, ['no-events' => 1]);
        }
        if (count($events) + count($refunds) > config('limits.records')) {
            return $this->told($collector, 0, ['too-many' => count($events) + count($refunds)]);
        }
        $refused = $items = $back = [];
        foreach ($events as $event) {
            $item = $this->record($collector, $event, $withViews);
            if (is_string($item)) {
                $refused[$item] = ($refused[$item] ?? 0) + 1;
            } else {
                $items[] = $item;
            }
        }
        foreach ($refunds as $refund) {
            $row = TakenBack::read($collector, $refund);
            if ($row === null) {
                $refused['no-refund'] = ($refused['no-refund'] ?? 0) + 1;
            } else {
                $back[] = $row;
            }
        }
        $rows = Row::all($this->sites->of($collector), $items);
        $taken = $this->keeping->keep($collector, $items, $rows);

        return $this->told($collector, $taken + $this->takenBack->keep($collector, $back), $refused);
    }

    /** @return Incoming|string an event, or why it is none that can be taken */
    private function record(Collector $collector, mixed $event, bool $withViews): Incoming|string
    {
        try {
            $read = EventReader::read(
                new Cursor(is_array($event) ? $event + ['site' => (string) $collector->id, 'url' => ''] : $event),
            );
        } catch (UnusableInput) {
            return 'no-event';
        }
        $now = (int) now()->getPreciseTimestamp(3);

        return match (true) {
            $read->isView() && ! $withViews => 'no-conversion',
            $read->isView() && ! Hosts::isOneOf($collector->hosts ?? [], Hosts::of($read->url)) => 'foreign-address',
            $read->isView() && $read->at < $now - self::kept($collector) * self::DAY => 'too-old',
            ! $read->isView() && $read->at < $now - config('limits.record_days') * self::DAY => 'too-late',
            $read->at > $now + self::AHEAD => 'ahead',
            abs($read->value ?? 0) > config('limits.conversion_value') => 'huge-value',
            default => new Incoming(Incoming::numberOf($read->id), $read),
        };
    }

    /** So many days back raw records are kept. */
    private static function kept(Collector $collector): int
    {
        return Settings::of($collector->client)->retention;
    }

    /** Counts what was not taken. */
    public function refuse(Collector $collector, string $why, int $n = 1): void
    {
        DB::table('refusals')->upsert(
            [
                'collector_id' => $collector->id,
                'day' => now($collector->client->time_zone)->toDateString(),
                'why' => $why,
                'n' => $n,
            ],
            ['collector_id', 'day', 'why'],
            ['n' => DB::raw('n + values(n)')],
        );
    }

    /**
     * @param array<string, int> $refused
     * @return array{taken: int, refused: array<string, int>}
     */
    private function told(Collector $collector, int $taken, array $refused): array
    {
        foreach ($refused as $why => $n) {
            $this->refuse($collector, $why, $n);
        }

        return ['taken' => $taken, 'refused' => $refused];
    }
}
