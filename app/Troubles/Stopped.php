<?php

namespace App\Troubles;

use App\Models\Client;
use Illuminate\Support\Facades\DB;

/** Campaigns that arrived day by day, are clicked on, and do not arrive any more: somebody has broken something. */
final class Stopped
{
    /** It arrived on each of so many days. */
    private const DAYS = 7;

    private const SILENT_HOURS = 24;

    /** So few clicks may be chance. */
    private const CLICKS = 5;

    /** @return list<Found> */
    public static function in(Client $client): array
    {
        $since = now()->subHours(self::SILENT_HOURS)->toDateTimeString();
        $rows = DB::select(
            'select c.account_id account, c.campaign_id campaign, n.name, c.node, count(distinct f.node_id) ads,
                coalesce(sum(f.clicks), 0) clicks, coalesce(sum(if(f.currency = ?, f.cost, 0)), 0) cost
            from (
                select account_id, campaign_id, min(node_id) node, max(begin) last, count(distinct day) days
                from site_sessions
                where client_id = ? and day >= ? and views > 0 and campaign_id is not null
                group by account_id, campaign_id
                having last < ? and count(distinct if(day between ? and ?, day, null)) = ?
            ) c
            join nodes n on n.id = c.campaign_id
            join (
                select distinct node_id, campaign_id from site_sessions
                where client_id = ? and day >= ? and campaign_id is not null
            ) a on a.campaign_id = c.campaign_id
            join figures f on f.node_id = a.node_id and f.client_id = ? and f.day >= ?
            group by c.account_id, c.campaign_id, n.name, c.node having clicks >= ?',
            [
                $client->currency,
                $client->id,
                Looking::since($client, self::DAYS + 2),
                $since,
                Looking::since($client, self::DAYS + 1),
                Looking::since($client, 2),
                self::DAYS,
                $client->id,
                Looking::since($client, self::DAYS + 2),
                $client->id,
                Looking::since($client, 1),
                self::CLICKS,
            ],
        );

        return array_map(
            static fn (object $r): Found => new Found(
                TroubleKind::Arrives,
                (int) $r->account,
                "stopped\0{$r->campaign}",
                "“{$r->name}” arrived every day, is clicked on, and has not arrived for a day.",
                (int) $r->node,
                (int) $r->ads,
                (int) $r->clicks,
                (int) $r->cost,
                about: ['code' => 'stopped', 'name' => 'ad-campaign', 'key' => '', 'values' => [(string) $r->campaign]],
            ),
            $rows,
        );
    }
}
