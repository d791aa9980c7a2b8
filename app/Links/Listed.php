<?php

namespace App\Links;

use App\Models\Client;
use App\Models\Link;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Links with how often they were opened and what that brought. */
final readonly class Listed
{
    /**
     * @param Collection<int, Link> $links
     * @return list<array<string, mixed>>
     */
    public function of(Client $client, Collection $links): array
    {
        $ids = $links->pluck('id')->all();
        $opened = DB::table('link_days')
            ->whereIntegerInRaw('link_id', $ids)
            ->groupBy('link_id')
            ->selectRaw('link_id, sum(people) people, sum(programs) programs')
            ->get()
            ->keyBy('link_id');
        $sessions = DB::table('site_sessions')
            ->whereIntegerInRaw('link_id', $ids)
            ->where('views', '>', 0)
            ->groupBy('link_id')
            ->selectRaw('link_id, count(*) n')
            ->pluck('n', 'link_id');
        $brought = DB::table('site_sessions as s')
            ->join('shares as c', 'c.session_id', 's.id')
            ->whereIntegerInRaw('s.link_id', $ids)
            ->groupBy('s.link_id', 'c.currency')
            ->selectRaw('s.link_id, c.currency, sum(c.part) part, sum(c.value) value')
            ->get()
            ->groupBy('link_id');
        $looking = Looking::by($client);

        return $links
            ->map(function (Link $link) use ($opened, $sessions, $brought, $looking): array {
                $sight = $looking->sight($link->core());
                $of = $brought[$link->id] ?? collect();

                return [
                    ...self::told($link),
                    'segments' => Looking::segments($link->core()),
                    'channel' => $sight->counted->channel,
                    'findings' => Looking::said($looking->findings($sight)),
                    'opened' => (int) ($opened[$link->id]->people ?? 0),
                    'programs' => (int) ($opened[$link->id]->programs ?? 0),
                    'sessions' => (int) ($sessions[$link->id] ?? 0),
                    'conversions' => (int) $of->sum('part') / 1_000_000,
                    'revenue' => (object) $of
                        ->whereNotNull('currency')
                        ->mapWithKeys(static fn (object $r): array => [$r->currency => (int) $r->value])
                        ->all(),
                ];
            })
            ->values()
            ->all();
    }

    /** @return array<string, mixed> */
    public static function told(Link $link): array
    {
        return [
            'id' => $link->id,
            'title' => $link->title,
            'landing' => $link->landing,
            'pairs' => (object) $link->pairs,
            'url' => $link->url,
            'host' => $link->host,
            'code' => $link->code,
            'short' => $link->short(),
            'forwards' => $link->forwards,
            'endsAt' => $link->ends_at?->toIso8601ZuluString(),
            'goneAt' => $link->gone_at?->toIso8601ZuluString(),
            'madeBy' => $link->maker?->name,
            'madeAt' => $link->created_at->toIso8601ZuluString(),
        ];
    }
}
