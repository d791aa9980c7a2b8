<?php

declare(strict_types=1);

namespace Vestigon\Core\Command;

use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Watch\Attribution;
use Vestigon\Core\Watch\ClickKeys;
use Vestigon\Core\Watch\Days;
use Vestigon\Core\Watch\Event;
use Vestigon\Core\Watch\EventReader;
use Vestigon\Core\Watch\Gathered;
use Vestigon\Core\Watch\Origins;
use Vestigon\Core\Watch\Referrers;
use Vestigon\Core\Watch\Refunds;
use Vestigon\Core\Watch\Report;
use Vestigon\Core\Watch\Several;
use Vestigon\Core\Watch\Told;
use Vestigon\Core\Watch\Watching;
use Vestigon\Core\Watch\Written;

/**
 * ./vestigon watch: events in; the sessions that they make, what conversions count for, and a report out. Events in a
 * file of their own, a line each and in order, may be any number.
 */
final class WatchCommand implements Command
{
    /** @throws UnusableInput */
    public function answer(Cursor $request): Answer
    {
        $events = [];
        foreach ($request->at('events')->list() as $c) {
            $event = EventReader::read($c);
            $events["{$event->site}\0{$event->id}"] ??= $event; // the first that came stays
        }
        usort($events, Event::inOrder(...));
        $gathered = new Gathered();
        $report = $this->watch($request, $events, $gathered);

        return new Answer(
            [
                'sessions' => $gathered->sessions,
                'conversions' => $gathered->conversions,
                'repeated' => $gathered->repeated,
                ...$report === null ? [] : ['report' => $report->toArray()],
            ],
            false,
        );
    }

    /**
     * @param iterable<string> $lines of JSON, a line an event, in order
     * @param resource $out
     * @throws UnusableInput with the line
     */
    public function stream(Cursor $request, iterable $lines, $out): void
    {
        $written = new Written($out);
        $report = $this->watch($request, self::read($lines), $written);
        $written->end($report === null ? [] : ['report' => $report->toArray()]);
    }

    /** @param iterable<Event> $events in order */
    private function watch(Cursor $request, iterable $events, Told $told): ?Report
    {
        $ads = $request->has('clicks') ? $request->at('clicks')->stringMap() : [];
        $report = $request->has('report') ? self::report($request, $ads) : null;
        $watching = new Watching(
            self::origins($request),
            $request->has('attribution') ? Attribution::read($request->at('attribution')) : new Attribution(),
            $ads,
            $report === null ? $told : new Several([$told, $report]),
        );
        foreach ($events as $event) {
            $watching->event($event);
        }
        $watching->end();
        if ($report !== null && $request->has('figures')) {
            $report->figures($request->at('figures'));
        }

        return $report;
    }

    private static function origins(Cursor $request): Origins
    {
        return new Origins(
            $request->has('channels')
                ? ChannelsReader::read($request->at('channels'))
                : ChannelsReader::shipped(),
            new ClickKeys(
                $request->has('platforms') ? $request->at('platforms')->stringMap() : [],
                $request->has('families') ? $request->at('families')->stringMap() : [],
            ),
            new Referrers(
                array_map(
                    static fn (Cursor $w): array => [
                        'host' => $w->at('host')->someText(),
                        'source' => $w->at('source')->string(),
                        'medium' => $w->at('medium')->string(),
                    ],
                    $request->has('referrers') ? $request->at('referrers')->list() : [],
                ),
                array_map(
                    static fn (Cursor $hosts): array => $hosts->strings(),
                    $request->has('sites') ? $request->at('sites')->map() : [],
                ),
                $request->has('stations') ? $request->at('stations')->strings() : [],
            ),
        );
    }

    /** @param array<string, string> $ads */
    private static function report(Cursor $request, array $ads): Report
    {
        $by = $request->at('report')->at('by')->strings();
        if (array_unique($by) !== $by) {
            $request->at('report')->at('by')->fail('each dimension is wanted once');
        }
        $zone = $request->at('timeZone');
        try {
            $days = new Days($zone->string());
        } catch (\InvalidArgumentException $e) {
            $zone->fail($e->getMessage());
        }

        return new Report(
            $by,
            $days,
            $ads,
            $request->has('refunds') ? Refunds::read($request->at('refunds')) : new Refunds(),
        );
    }

    /**
     * @param iterable<string> $lines
     * @return iterable<Event>
     */
    private static function read(iterable $lines): iterable
    {
        $last = null;
        $n = 0;
        foreach ($lines as $line) {
            $place = 'line '.++$n;
            if ($line === "\n") {
                continue;
            }
            $event = EventReader::line($line, $place);
            if ($last !== null && $last->isAfter($event)) {
                throw UnusableInput::at(
                    $place,
                    'it was before the line above it: lines are wanted sorted by "at", then "id"',
                );
            }
            yield $last = $event;
        }
    }
}
