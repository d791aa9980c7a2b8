<?php

namespace App\Watching;

use App\Collecting\Row;
use App\Models\Client;
use App\Support\Text;
use Vestigon\Core\Watch\Days;
use Vestigon\Core\Watch\Event;
use Vestigon\Core\Watch\EventKind;
use Vestigon\Core\Watch\Hosts;
use Vestigon\Core\Watch\Session;
use Vestigon\Core\Watch\Sessions;

/** Puts arrivals of visitors together to sessions, as rows of their table. */
final readonly class SessionRows
{
    /** A visitor who was here within so many days is not new (watch.md §3). */
    private const NEW_AFTER = 400 * 86_400_000;

    public function __construct(private Told $told, private Elements $elements, private PlanKeys $planKeys) {}

    /**
     * @param list<object> $rows by visitor, in their order
     * @param array<string, int> $before
     * @return array{list<array<string, mixed>>, array<int, int>} rows of the table; conversion → the session that it is
     *     in
     */
    public function of(Client $client, array $rows, array $before): array
    {
        $sessions = new Sessions($this->told->byDays($client), $this->told->origins($client)->none());
        /** @var array<int, array{Session, object, object|null}> $made with the first event and the first view */
        $made = $conversions = [];
        foreach ($rows as $row) {
            $session = $sessions->of(self::event($row));
            $made[$session->number] ??= [$session, $row, null];
            if ($row->kind === 'view') {
                $made[$session->number][2] ??= $row;
            } else {
                $conversions[(int) $row->id] = (int) $made[$session->number][1]->id;
            }
        }
        $ads = array_unique(
            array_filter(array_map(static fn (array $m): ?int => $m[2]->node_id ?? $m[1]->node_id, $made)),
        );
        $above = $this->elements->above(array_values($ads));
        $days = new Days($client->time_zone);
        $own = Told::ownHosts($client);
        $keys = $this->planKeys->of($client);
        $told = [];
        foreach ($made as [$session, $first, $view]) {
            $isNew = null;
            if ($session->visitor !== null && $session->views > 0) {
                $last = $before[$session->visitor] ?? null;
                $isNew = $last === null || $session->begin - $last > self::NEW_AFTER;
                $before[$session->visitor] = $session->begin;
            }
            $told[] = $this->row($client, $session, $first, $view, $isNew, $days, $above) + [
                'doubled' => Text::fit(implode(',', $session->origin->twice), 64),
                'lost_from' => $isNew === true && $view !== null && ! $session->isTracked()
                    ? Text::fit(Hosts::goneOnFrom($view->referrer, $view->url, $own), 191)
                    : '',
                'others' => PlanKeys::said($keys, $view->url ?? ''),
            ];
        }

        return [$told, $conversions];
    }

    /**
     * @param array<int, array<string, int|null>> $above
     * @return array<string, mixed>
     */
    private function row(
        Client $client,
        Session $session,
        object $first,
        ?object $view,
        ?bool $isNew,
        Days $days,
        array $above,
    ): array {
        $of = $view ?? $first;
        $elements = $above[$of->node_id ?? 0] ?? [
            'account_id' => null,
            'campaign_id' => null,
            'group_id' => null,
            'node_id' => null,
        ];
        $keys = $session->origin->keys;

        return [
            'id' => $first->id,
            'client_id' => $client->id,
            'collector_id' => $first->collector_id,
            'visitor' => $session->visitor,
            'begin' => Row::instant($session->begin),
            'end' => Row::instant($session->end),
            'day' => $days->day($session->begin),
            'views' => $session->views,
            'is_new' => $isNew === null ? null : (int) $isNew,
            'is_tracked' => (int) $session->isTracked(),
            'how' => $session->origin->how->value,
            'channel' => Text::fit($session->origin->channel, 120),
            'source' => Text::fit($keys['source'], 255),
            'medium' => Text::fit($keys['medium'], 255),
            'campaign' => $view->campaign ?? '',
            'term' => $view->term ?? '',
            'content' => $view->content ?? '',
            'platform' => $elements['account_id'] === null
                    ? $session->origin->platform ?? ''
                    : $this->elements->platform($elements['account_id']),
            'click_id' => Text::fit($session->origin->click ?? '', 128),
            'keyword' => $of->keyword,
            'placement' => $of->placement,
            'device' => $of->device,
            'landing' => Text::fit(preg_split('/[?#]/', $session->landing)[0] ?? '', 500),
            ...$elements,
        ];
    }

    private static function event(object $row): Event
    {
        return new Event(
            (string) $row->id,
            (string) $row->collector_id,
            Gathering::at($row->at),
            EventKind::from($row->kind),
            $row->url,
            $row->referrer,
            $row->visitor,
        );
    }
}
