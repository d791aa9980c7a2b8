<?php

namespace App\Troubles;

use App\Models\Client;
use App\Models\Link;
use App\Models\Trouble;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;

/** What is wrong with the links that people place themselves, by cause; those whose day has ended are left. */
final class OfLinks
{
    public const CAUSE = "regexp_replace(l.fault, '“[^”]*”', '“…”')";

    /** @return array{items: list<array<string, mixed>>, ids: list<int>} those that a trouble is about, the newest first */
    public static function those(Client $client, Trouble $trouble, int $most): array
    {
        $links = Link::query()
            ->from('links as l')
            ->where('l.client_id', $client->id)
            ->whereRaw(self::CAUSE.' = ?', [Looking::causeOf($trouble->what)])
            ->where(static fn (Builder $of) => $of->whereNull('l.ends_at')->orWhere('l.ends_at', '>', now()))
            ->whereNull('l.gone_at')
            ->withoutGlobalScopes()
            ->orderByDesc('l.id')
            ->limit($most)
            ->get();

        return [
            'items' => $links
                ->map(
                    static fn (Link $link): array => [
                        'id' => $link->id,
                        'name' => $link->title === '' ? $link->url : $link->title,
                        'externalId' => (string) $link->code,
                        'parent' => '',
                        'state' => null,
                        'fault' => $link->fault,
                        'clicks' => 0,
                        'cost' => 0,
                    ],
                )
                ->all(),
            'ids' => $links->modelKeys(),
        ];
    }

    /** @return list<Found> */
    public static function in(Client $client): array
    {
        $cause = self::CAUSE;

        return array_map(
            static fn (object $r): Found => new Found(
                TroubleKind::Link,
                null,
                (string) $r->cause,
                (int) $r->faults === 1 ? (string) $r->one : (string) $r->cause,
                ads: (int) $r->links,
                clicks: (int) $r->sessions,
            ),
            DB::select(
                "select {$cause} cause, max(l.fault) one, count(distinct l.fault) faults, count(*) links,
                    coalesce(sum(s.n), 0) sessions
                from links l left join (
                    select link_id, count(*) n from site_sessions where client_id = ? and day >= ? and views > 0
                        and link_id is not null
                    group by link_id
                ) s on s.link_id = l.id
                where l.client_id = ? and l.fault is not null and l.gone_at is null
                    and (l.ends_at is null or l.ends_at > ?)
                group by 1",
                [$client->id, Looking::since($client), $client->id, now()->toDateTimeString()],
            ),
        );
    }
}
