<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/**
 * Takes events in their order, and tells the sessions that they make and what the conversions among them count for.
 *
 * A record is its site and id: what comes again is passed over.
 */
final class Watching
{
    private readonly Sessions $sessions;

    private readonly Led $led;

    /** @var array<string, true> by site and id */
    private array $records = [];

    /** @var array<string, true> by site and order */
    private array $orders = [];

    /** @param array<string, string> $ads of clicks that platforms know, by click ID */
    public function __construct(Origins $origins, Attribution $attribution, array $ads, private readonly Told $told)
    {
        $this->sessions = new Sessions($origins->of(...), $origins->none());
        $this->led = new Led($attribution, $ads);
    }

    public function event(Event $event): void
    {
        $record = "{$event->site}\0{$event->id}";
        if (isset($this->records[$record])) {
            return;
        }
        $this->records[$record] = true;
        $this->tell($event->at);
        $session = $this->sessions->of($event);
        if (count($session->events) === 1) {
            $this->led->began($session);
        }
        if ($event->kind === EventKind::Convert && ! $event->isTest) {
            $this->isFirstOfItsOrder($event)
                ? $this->told->conversion($this->led->conversion($event, $session))
                : $this->told->repeated($event);
        }
    }

    /** No more events come. */
    public function end(): void
    {
        $this->tell(PHP_INT_MAX);
    }

    private function tell(int $before): void
    {
        while (($session = $this->sessions->overBefore($before)) !== null) {
            $this->told->session($session);
            $session->events = []; // what is asked for its shares later is not its events
        }
    }

    private function isFirstOfItsOrder(Event $event): bool
    {
        if ($event->order === null) {
            return true;
        }
        $order = "{$event->site}\0{$event->order}";
        if (isset($this->orders[$order])) {
            return false;
        }

        return $this->orders[$order] = true;
    }
}
