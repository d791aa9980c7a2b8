<?php

namespace App\Watching;

use App\Models\Arrival;
use Vestigon\Core\Watch\EventKind;
use Vestigon\Core\Watch\Instant;
use Vestigon\Core\Watch\Session;
use Vestigon\Core\Watch\Sessions;

/** The way of one visitor over a site: sessions, each with where it came from and the pages that were seen. */
final readonly class Way
{
    /** Of the views of a visitor so many are looked at, the last ones. */
    private const MOST = 500;

    public function __construct(private Told $told) {}

    /** @return array{views: int, more: bool, sessions: list<array<string, mixed>>} the last session first */
    public function of(Arrival $arrival): array
    {
        $views =
            $arrival->visitor === null
                ? collect([$arrival])
                : Arrival::query()
                    ->where(['collector_id' => $arrival->collector_id, 'visitor' => $arrival->visitor])
                    ->orderByDesc('at')
                    ->orderByDesc('id')
                    ->limit(self::MOST + 1)
                    ->get();
        $client = $arrival->client;
        $sessions = new Sessions($this->told->byDays($client), $this->told->origins($client)->none());
        $told = [];
        $conversions = Conversions::of($views->where('kind', EventKind::Convert)->pluck('id')->all());
        foreach ($views->take(self::MOST)->reverse() as $view) {
            $event = $view->event();
            $session = $sessions->of($event);
            $told[$session->number] ??= ['session' => $session, 'pages' => []];
            $told[$session->number]['pages'][] = [
                'arrival' => $view->id,
                'at' => Instant::text($event->at),
                'url' => $view->url,
                'conversion' => $conversions[$view->id] ?? null,
            ];
        }

        return [
            'views' => $views->take(self::MOST)->count(),
            'more' => $views->count() > self::MOST,
            'sessions' => array_map(
                static fn (array $t): array => [...self::session($t['session']), 'pages' => $t['pages']],
                array_reverse(array_values($told)),
            ),
        ];
    }

    /** @return array<string, mixed> */
    private static function session(Session $session): array
    {
        return [
            'begin' => Instant::text($session->begin),
            'end' => Instant::text($session->end),
            'source' => $session->origin->keys['source'],
            'medium' => $session->origin->keys['medium'],
            'channel' => $session->origin->channel,
            'how' => $session->origin->how->value,
        ];
    }
}
