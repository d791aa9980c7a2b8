<?php

namespace App\Balance;

use App\Dialects\Dialects;
use App\Models\Client;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Template\Element\CatalogueToken;
use Vestigon\Core\Template\Element\Conditional;
use Vestigon\Core\Template\Element\CustomParameter;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Watch\Balance;

/**
 * Where the clicks of platforms, accounts, campaigns or ads have gone: from what the platform has counted down to what
 * arrived in the channel that the plan wants. (watch.md §6)
 */
final class Stairs
{
    /** By what lines are told, and where figures and sessions have it. */
    public const BY = [
        'platform' => ['w.platform', 'w.platform'],
        'account' => ['f.account_id', 's.account_id'],
        'campaign' => ['f.campaign_id', 's.campaign_id'],
        'ad' => ['f.node_id', 's.node_id'],
    ];

    private const KEYS = ['utm_source', 'utm_medium'];

    /** @var array<string, bool> what stands in a key, by platform and text */
    private array $raw = [];

    /** @var array<string, TemplateReader> */
    private array $readers = [];

    public function __construct(private readonly Dialects $dialects) {}

    /**
     * @param string|null $by one of BY; null: all together
     * @param array{0: string, 1: int|string}|null $within one of BY, and which: the lines below it alone
     * @return array<string, array{Balance, int}> with what the clicks have cost, in the client's currency
     */
    public function of(Client $client, string $from, string $to, ?string $by, ?array $within): array
    {
        [$ofFigures, $ofSessions] = $by === null ? ["''", "''"] : self::BY[$by];
        $figures = $within === null ? '' : ' and '.self::BY[$within[0]][0].' = ?';
        $sessions = $within === null ? '' : ' and '.self::BY[$within[0]][1].' = ?';
        $also = $within === null ? [] : [$within[1]];
        $lines = [];
        $rows = DB::select(
            "select {$ofFigures} k, sum(f.clicks) clicks, sum(if(f.currency = ?, f.cost, 0)) cost,
                sum(if(w.reach = 'broken', greatest(0, f.clicks - coalesce(v.n, 0)), 0)) broken,
                sum(if(w.reach = 'untracked', greatest(0, f.clicks - coalesce(v.n, 0)), 0)) untracked
            from figures f join wanted_lines w on w.node_id = f.node_id
            left join (
                select node_id, day, count(*) n from site_sessions
                where client_id = ? and day between ? and ? and node_id is not null and views > 0 group by node_id, day
            ) v on v.node_id = f.node_id and v.day = f.day
            where f.client_id = ? and f.day between ? and ?{$figures} group by k",
            [$client->currency, $client->id, $from, $to, $client->id, $from, $to, ...$also],
        );
        foreach ($rows as $r) {
            $lines[(string) $r->k] =
                [
                    'clicks' => (int) $r->clicks,
                    'cost' => (int) $r->cost,
                    'broken' => (int) $r->broken,
                    'untracked' => (int) $r->untracked,
                ] + self::NOTHING;
        }
        $plan = $client->plan()?->read();
        $wantsKeys = array_intersect(self::KEYS, $plan?->keys() ?? []) !== [];
        $rows = DB::select(
            "select {$ofSessions} k, w.platform, s.how, s.channel, w.channel wanted, s.source, s.medium, s.campaign,
                (s.click_id <> '' and exists (
                    select 1 from site_sessions e force index (site_sessions_client_id_click_id_index)
                    where e.client_id = s.client_id and e.click_id = s.click_id
                        and (e.begin < s.begin or (e.begin = s.begin and e.id < s.id))
                )) again, count(*) n
            from site_sessions s join wanted_lines w on w.node_id = s.node_id
            where s.client_id = ? and s.day between ? and ? and s.views > 0{$sessions}
            group by k, w.platform, s.how, s.channel, w.channel, s.source, s.medium, s.campaign, again",
            [$client->id, $from, $to, ...$also],
        );
        foreach ($rows as $r) {
            $line =
                $lines[(string) $r->k] ??
                ['clicks' => 0, 'cost' => 0, 'broken' => 0, 'untracked' => 0] + self::NOTHING;
            $step = $this->step($client, $r, $wantsKeys);
            if ($step === 'elsewhere') {
                $line['elsewhere'][$r->channel] = ($line['elsewhere'][$r->channel] ?? 0) + (int) $r->n;
            } else {
                $line[$step] += (int) $r->n;
            }
            $lines[(string) $r->k] = $line;
        }
        // of whom nothing is known, it is not known either which account's ads they clicked
        $withheld = $by === null && $within === null ? $this->withheld($client, $from, $to) : null;

        return array_map(
            static fn (array $l): array => [
                Balance::of(
                    $l['clicks'],
                    $l['arrived'],
                    $l['elsewhere'],
                    $l['empty'],
                    $l['raw'],
                    $l['repeats'],
                    $l['broken'],
                    $l['untracked'],
                    null,
                    $withheld,
                ),
                $l['cost'],
            ],
            $lines,
        );
    }

    private const NOTHING = ['arrived' => 0, 'elsewhere' => [], 'empty' => 0, 'raw' => 0, 'repeats' => 0];

    private function step(Client $client, object $r, bool $wantsKeys): string
    {
        $byKeys = $r->how === 'keys';

        return match (true) {
            (bool) $r->again => 'repeats',
            $byKeys && $this->isRaw($client, $r->platform, "{$r->source}\n{$r->medium}\n{$r->campaign}") => 'raw',
            ! $byKeys && $this->isRaw($client, $r->platform, $r->campaign) => 'raw',
            ! $byKeys && $wantsKeys => 'empty',
            $r->channel !== $r->wanted => 'elsewhere',
            default => 'arrived',
        };
    }

    /** Does it hold a token of the platform, or a custom parameter, as it stood in the text? */
    private function isRaw(Client $client, string $platform, string $value): bool
    {
        return $this->raw["{$platform} {$value}"] ??= $this->holdsToken($client, $platform, $value);
    }

    private function holdsToken(Client $client, string $platform, string $value): bool
    {
        $dialect = $this->dialects->find($client->id, $platform);
        if ($dialect?->syntax === null) {
            return false;
        }
        $reader = $this->readers[$platform] ??= new TemplateReader($dialect);
        foreach ($reader->read($value)->walk() as $part) {
            if (
                $part instanceof CatalogueToken
                || $part instanceof CustomParameter
                || $part instanceof Conditional
            ) {
                return true;
            }
        }

        return false;
    }

    private function withheld(Client $client, string $from, string $to): ?int
    {
        $n = DB::table('withheld')
            ->whereIn('collector_id', $client->collectors()->select('id'))
            ->whereBetween('day', [$from, $to])
            ->selectRaw('sum(n) n')
            ->value('n');

        return $n === null ? null : (int) $n;
    }
}
