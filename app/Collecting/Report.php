<?php

namespace App\Collecting;

use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Watch\EventReader;
use Vestigon\Core\Watch\Hosts;
use Vestigon\Core\Watch\Instant;

/** What a page reports: what of it can be taken, and why the rest can not. */
final readonly class Report
{
    private const DAY = 86_400_000;

    /**
     * So far apart, in milliseconds, a page's clock and ours agree: what is between is the way here. The page's
     * instants stay then, so that what comes in another order than it was sent in is put in order again.
     */
    private const NEAR = 10_000;

    /**
     * @param list<Incoming> $items
     * @param array<string, int> $refused why → how many
     */
    private function __construct(public array $items, public array $refused) {}

    /**
     * @param mixed $body `{sent, events: [event]}`, `sent` by the clock that the events have their instants of
     * @param int $now in milliseconds
     */
    public static function read(Site $site, mixed $body, int $now): self
    {
        $events = is_array($body) && is_array($body['events'] ?? null) ? array_values($body['events']) : null;
        if ($events === null) {
            return new self([], ['no-events' => 1]);
        }
        $most = $site->limits->events;
        $refused = count($events) > $most ? ['too-many' => count($events) - $most] : [];
        $sent = (is_string($body['sent'] ?? null) ? Instant::read($body['sent']) : null) ?? $now;
        $now = abs($now - $sent) <= self::NEAR ? $sent : $now;
        $items = [];
        foreach (array_slice($events, 0, $most) as $event) {
            $item = self::item($site, $event, $now, $sent);
            if (is_string($item)) {
                $refused[$item] = ($refused[$item] ?? 0) + 1;
            } else {
                $items[] = $item;
            }
        }

        return new self($items, $refused);
    }

    /** Is all of it pages that were seen, fit to be taken? */
    public function isPlain(): bool
    {
        foreach ($this->items as $one) {
            if (! $one->event->isView()) {
                return false;
            }
        }

        return $this->items !== [] && $this->refused === [];
    }

    /** @return Incoming|string an arrival, or why it is none */
    private static function item(Site $site, mixed $event, int $now, int $sent): Incoming|string
    {
        try {
            $read = EventReader::read(new Cursor($event));
        } catch (UnusableInput) {
            return 'no-event';
        }
        // the page's clock may be wrong by years: how long ago it was counts, not what it says
        $ago = max(0, $sent - $read->at);

        return match (true) {
            ! Hosts::isOneOf($site->hosts, Hosts::of($read->url)) => 'foreign-address',
            $ago > $site->limits->days * self::DAY => 'too-late',
            abs($read->value ?? 0) > $site->limits->value => 'huge-value',
            default => new Incoming(Incoming::numberOf($read->id), $read->movedTo($now - $ago)),
        };
    }
}
