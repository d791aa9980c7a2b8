<?php

namespace App\Troubles;

use App\Models\Client;
use Illuminate\Support\Facades\DB;

/**
 * Looks for what is wrong over all accounts of a client, by cause: ads that are wrong in the same way are one trouble,
 * which has cost what the clicks on them have cost in the last 30 days.
 */
final readonly class Looking
{
    /** Costs of so many days are counted. */
    public const DAYS = 30;

    /** An ad with so many clicks in a week of which nothing arrives is silent. */
    public const CLICKS = 15;

    /** So many sessions that are counted elsewhere are worth a word. */
    private const SESSIONS = 10;

    /** An account that was not brought in for so many days is stale. */
    private const STALE = 14;

    /** What a value is differs from ad to ad; what is wrong with it is the same. */
    public const CAUSE = "regexp_replace(n.fault, '“[^”]*”', '“…”')";

    /** The cause of a trouble that is read as the fault of its ads. */
    public static function causeOf(string $what): string
    {
        return (string) preg_replace('/“[^”]*”/u', '“…”', $what);
    }

    private const UNTRACKED = 'ads that carry nothing of the plan';

    public const ELSEWHERE = "concat('counted as “', s.channel, '”, wanted as “', w.channel, '”')";

    /** @return list<Found> */
    public function of(Client $client): array
    {
        $hasPlan = $client->plan() !== null;

        return [
            ...$hasPlan ? $this->ofEach($client, $this->outOfLine(...)) : [],
            ...$hasPlan ? $this->elsewhere($client) : [],
            ...$this->silent($client),
            ...$this->outside($client),
            ...$this->stale($client),
            ...$this->ofEach($client, $this->names(...)),
            ...OfFeeds::in($client),
            ...OfLinks::in($client),
        ];
    }

    /** Figures of one account's ads: account by account they are read as they are stored. */
    private const FIGURES = 'figures where account_id = ? and day >= ?';

    /** @return list<Found> ads of an account that are broken, by what is wrong, and those that are untracked */
    private function outOfLine(Client $client, int $account): array
    {
        $cause = self::CAUSE;
        $rows = DB::select(
            "select n.state, n.account_id account, if(n.state = 'broken', {$cause}, ?) cause, max(n.fault) one,
                count(distinct n.fault) faults, min(n.id) node, count(*) ads, coalesce(sum(f.clicks), 0) clicks,
                coalesce(sum(f.cost), 0) cost
            from nodes n left join (
                select node_id, sum(clicks) clicks, sum(if(currency = ?, cost, 0)) cost from ".self::FIGURES."
                group by node_id
            ) f on f.node_id = n.id
            where n.account_id = ? and n.is_ad and n.state in ('broken', 'untracked') and n.gone_at is null
            group by 1, 2, 3",
            [self::UNTRACKED, $client->currency, $account, self::since($client), $account],
        );

        return array_merge(...array_map(
            fn (TroubleKind $kind): array => $this->found($kind, array_values(
                array_filter($rows, static fn (object $r): bool => $r->state === $kind->value),
            )),
            [TroubleKind::Broken, TroubleKind::Untracked],
        ));
    }

    /** @return list<Found> */
    private function elsewhere(Client $client): array
    {
        return $this->found(TroubleKind::Elsewhere, DB::select(
            'select s.account_id account,
                '.self::ELSEWHERE.' cause, null one, 0 faults,
                min(s.node_id) node, count(distinct s.node_id) ads, count(*) clicks, 0 cost
            from site_sessions s join wanted_lines w on w.node_id = s.node_id
            where s.client_id = ? and s.day >= ? and s.views > 0 and s.channel <> w.channel
            group by s.account_id, s.channel, w.channel having count(*) >= ?',
            [$client->id, self::since($client), self::SESSIONS],
        ));
    }

    /** @return list<Found> */
    private function silent(Client $client): array
    {
        return $this->found(TroubleKind::Silent, DB::select(
            "select f.account_id account, 'clicked, and nothing of it arrives' cause, null one, 0 faults,
                min(f.node_id) node, count(*) ads, sum(f.clicks) clicks, sum(f.cost) cost
            from (
                select account_id, node_id, sum(clicks) clicks, sum(if(currency = ?, cost, 0)) cost
                from figures
                where client_id = ? and day >= ? and day < ? group by account_id, node_id having sum(clicks) >= ?
            ) f
            where not exists (select 1 from site_sessions s where s.node_id = f.node_id and s.day >= ?)
                and exists (select 1 from site_sessions s where s.client_id = ? and s.day >= ?)
            group by f.account_id",
            [
                $client->currency,
                $client->id,
                self::since($client, 8),
                self::since($client, 1),
                self::CLICKS,
                self::since($client, 8),
                $client->id,
                self::since($client, 8),
            ],
        ));
    }

    /** @return list<Found> */
    private function outside(Client $client): array
    {
        return $this->found(TroubleKind::Outside, DB::select(
            "select account_id account, 'changed outside, and breaks ads' cause, null one, 0 faults,
                min(node_id) node, sum(breaks) ads, 0 clicks, 0 cost
            from outside_changes
            where account_id in (select id from accounts where client_id = ?) and state = 'open' and breaks > 0
            group by account_id",
            [$client->id],
        ));
    }

    /** @return list<Found> */
    private function stale(Client $client): array
    {
        return $this->found(TroubleKind::Stale, DB::select(
            "select id account, 'not brought in for long' cause, null one, 0 faults, null node, 0 ads, 0 clicks, 0 cost
            from accounts where client_id = ? and imported_at < ?",
            [$client->id, now()->subDays(self::STALE)->toDateTimeString()],
        ));
    }

    /** @return list<Found> names of an account that are off, with the ads below that were clicked on */
    private function names(Client $client, int $account): array
    {
        $isOff = "exists (select 1 from findings x where x.node_id = %s and x.code = 'name-off-pattern')";
        $below = implode(' or ', array_map(
            static fn (string $at): string => sprintf($isOff, $at),
            ['f.campaign_id', 'f.group_id', 'f.node_id'],
        ));

        return $this->found(TroubleKind::Names, DB::select(
            "select g.account_id account, 'names off their pattern' cause, 1 faults,
                if(g.n = 1, 'a name is off its pattern', concat(format(g.n, 0), ' names are off their pattern')) one,
                g.node, coalesce(s.ads, 0) ads, coalesce(s.clicks, 0) clicks, coalesce(s.cost, 0) cost
            from (
                select account_id, count(distinct node_id) n, min(node_id) node from findings
                where account_id = ? and code = 'name-off-pattern' group by account_id
            ) g left join (
                select f.account_id, count(*) ads, sum(f.clicks) clicks, sum(f.cost) cost from (
                    select account_id, campaign_id, group_id, node_id, sum(clicks) clicks,
                        sum(if(currency = ?, cost, 0)) cost
                    from ".self::FIGURES." group by account_id, campaign_id, group_id, node_id
                ) f where {$below} group by f.account_id
            ) s on s.account_id = g.account_id",
            [$account, $client->currency, $account, self::since($client)],
        ));
    }

    /**
     * @param \Closure(Client, int): list<Found> $look at an account
     * @return list<Found>
     */
    private function ofEach(Client $client, \Closure $look): array
    {
        return array_merge(
            ...$client
                ->accounts()
                ->orderBy('id')
                ->pluck('id')
                ->map(static fn (int $account): array => $look($client, $account))
                ->all(),
        );
    }

    /**
     * @param list<object> $rows
     * @return list<Found>
     */
    private function found(TroubleKind $kind, array $rows): array
    {
        return array_map(
            static fn (object $r): Found => new Found(
                $kind,
                (int) $r->account,
                (string) $r->cause,
                $kind->says() ?? ((int) $r->faults === 1 ? (string) $r->one : (string) $r->cause),
                $r->node === null ? null : (int) $r->node,
                (int) $r->ads,
                (int) $r->clicks,
                (int) $r->cost,
            ),
            $rows,
        );
    }

    public static function since(Client $client, int $days = self::DAYS): string
    {
        return now($client->time_zone)->subDays($days)->toDateString();
    }
}
