<?php

namespace App\Arrivals;

use App\Models\Collector;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Watch\Event;
use Vestigon\Core\Watch\EventReader;
use Vestigon\Core\Watch\Hosts;
use Vestigon\Core\Watch\Instant;

/**
 * Takes what pages report. What can't be taken is counted by day and why, and does not hold up the rest; no address of
 * a visitor is kept.
 */
final readonly class Receiving
{
    private const DAY = 86_400_000;

    /** Clocks of servers may be ahead by so much, in milliseconds. */
    private const AHEAD = 3_600_000;

    /**
     * So far apart, in milliseconds, a page's clock and ours agree: what is between is the way here. The page's
     * instants stay then, so that what comes in another order than it was sent in is put in order again.
     */
    private const NEAR = 10_000;

    public function __construct(private Keeping $keeping, private TakenBack $takenBack) {}

    /**
     * @param mixed $body `{sent, events: [event]}`, `sent` by the clock that the events have their instants of
     * @return array{taken: int, refused: array<string, int>}
     */
    public function take(Collector $collector, mixed $body): array
    {
        $events = is_array($body) && is_array($body['events'] ?? null) ? array_values($body['events']) : null;
        if ($events === null) {
            return $this->told($collector, 0, ['no-events' => 1]);
        }
        $most = config('limits.collect_events');
        $refused = count($events) > $most ? ['too-many' => count($events) - $most] : [];
        $now = (int) now()->getPreciseTimestamp(3);
        $sent = (is_string($body['sent'] ?? null) ? Instant::read($body['sent']) : null) ?? $now;
        $now = abs($now - $sent) <= self::NEAR ? $sent : $now;
        $items = [];
        foreach (array_slice($events, 0, $most) as $event) {
            $item = $this->item($collector, $event, $now, $sent);
            if (is_string($item)) {
                $refused[$item] = ($refused[$item] ?? 0) + 1;
            } else {
                $items[] = $item;
            }
        }

        return $this->told(
            $collector,
            $items === [] ? 0 : $this->keeping->keep($collector, $items, $this->keeping->rows($collector, $items)),
            $refused,
        );
    }

    /**
     * Conversions that a server hands in, and what was taken back of orders: each counts on its own day, however late
     * it comes.
     *
     * @param mixed $body `{events?: [event of kind convert], refunds?: [{id, order, at, value}]}`
     * @return array{taken: int, refused: array<string, int>}
     */
    public function handedIn(Collector $collector, mixed $body): array
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
            $item = $this->record($collector, $event);
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
        $rows = $this->keeping->rows($collector, $items);
        $taken = $items === [] ? 0 : $this->keeping->keep($collector, $items, $rows);

        return $this->told($collector, $taken + $this->takenBack->keep($collector, $back), $refused);
    }

    /** @return Incoming|string a conversion, or why it is none that can be taken */
    private function record(Collector $collector, mixed $event): Incoming|string
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
            $read->isView() => 'no-conversion',
            $read->at < $now - config('limits.record_days') * self::DAY => 'too-late',
            $read->at > $now + self::AHEAD => 'ahead',
            self::isHuge($read) => 'huge-value',
            default => new Incoming(self::numberOf($read->id), $read),
        };
    }

    private static function isHuge(Event $event): bool
    {
        return abs($event->value ?? 0) > config('limits.conversion_value');
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

    /** @return Incoming|string an arrival, or why it is none */
    private function item(Collector $collector, mixed $event, int $now, int $sent): Incoming|string
    {
        try {
            $read = EventReader::read(new Cursor($event));
        } catch (UnusableInput) {
            return 'no-event';
        }
        // the page's clock may be wrong by years: how long ago it was counts, not what it says
        $ago = max(0, $sent - $read->at);

        return match (true) {
            ! self::isOn($collector, Hosts::of($read->url)) => 'foreign-address',
            $ago > config('limits.collect_days') * self::DAY => 'too-late',
            self::isHuge($read) => 'huge-value',
            default => new Incoming(self::numberOf($read->id), $read->movedTo($now - $ago)),
        };
    }

    /** Is it one of the hosts that report? */
    public static function isOn(Collector $collector, string $host): bool
    {
        foreach ($host === '' ? [] : $collector->hosts ?? [] as $own) {
            if (Hosts::fits($own, $host)) {
                return true;
            }
        }

        return false;
    }

    /** Of a record's word: the same word is the same record. */
    public static function numberOf(string $id): int
    {
        return (int) hexdec(substr(hash('sha256', $id), 0, 15));
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
