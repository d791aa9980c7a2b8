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
    /** A page may report so many events at once. */
    public const MOST = 50;

    /** Of what a page saw, and could not report earlier, in milliseconds. */
    private const LATE = 86_400_000;

    public function __construct(private Keeping $keeping) {}

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
        $refused = count($events) > self::MOST ? ['too-many' => count($events) - self::MOST] : [];
        $now = (int) now()->getPreciseTimestamp(3);
        $sent = is_string($body['sent'] ?? null) ? Instant::read($body['sent']) : null;
        $items = [];
        foreach (array_slice($events, 0, self::MOST) as $event) {
            $item = $this->item($collector, $event, $now, $sent ?? $now);
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
            ! $read->isView() && $read->order === null && ! $read->isTest => 'no-order',
            ! self::isOn($collector, Hosts::of($read->url)) => 'foreign-address',
            $ago > self::LATE => 'too-late',
            default => new Incoming(self::number($read), $read->movedTo($now - $ago)),
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

    /** Of an event's word: the same word is the same event. */
    private static function number(Event $event): int
    {
        return (int) hexdec(substr(hash('sha256', $event->id), 0, 15));
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
