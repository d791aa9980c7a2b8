<?php

namespace App\Balance;

use App\Models\Client;
use App\Watching\Settings;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Watch\Claim;
use Vestigon\Core\Watch\Share;

/**
 * What platforms claim that their clicks have brought, laid beside what counts for them here.
 *
 * A conversion is looked at for a line where a click of that line came before it, within the time in which platforms
 * claim; on the day of the latest such click. (watch.md §6)
 */
final readonly class Claims
{
    /** Days after a click for which platforms claim what follows (common practice). */
    private const DAYS = 30;

    /** Where what counts has what lines are told by. */
    private const OF_SHARES = [
        'platform' => 'hw.platform',
        'account' => 'h.account_id',
        'campaign' => 'h.campaign_id',
        'ad' => 'h.node_id',
    ];

    private const NOTHING = ['claimed' => 0, 'counted' => 0, 'elsewhere' => [], 'outside' => 0, 'repeated' => 0,
        'takenBack' => 0];

    public function __construct(private StairDays $days) {}

    /**
     * @return array<string, array{conversions: Claim, revenue: Claim}> conversions in millionths, revenue in minor
     *     units of the client's currency
     */
    public function of(Asked $asked): array
    {
        $lines = [];
        foreach ($this->claimed($asked) as [$key, $conversions, $value]) {
            $lines[$key] ??= ['conversions' => self::NOTHING, 'revenue' => self::NOTHING];
            $lines[$key]['conversions']['claimed'] += $conversions * Share::WHOLE;
            $lines[$key]['revenue']['claimed'] += $value;
        }
        foreach ($this->known($asked) as $row) {
            $line = $lines[(string) $row->k] ?? ['conversions' => self::NOTHING, 'revenue' => self::NOTHING];
            $sizes = ['conversions' => [$row->parts, $row->parts_back], 'revenue' => [$row->value, $row->value_back]];
            foreach ($sizes as $of => [$size, $back]) {
                $line[$of]['takenBack'] += (int) $back;
                $left = (int) $size - (int) $back;
                if ($row->what === 'elsewhere' && $left !== 0) {
                    $line[$of]['elsewhere'][$row->channel] = ($line[$of]['elsewhere'][$row->channel] ?? 0) + $left;
                } elseif ($row->what !== 'elsewhere') {
                    $line[$of][$row->what] += $left;
                }
            }
            $lines[(string) $row->k] = $line;
        }

        return array_map(
            static fn (array $line): array => [
                'conversions' => Claim::of(...$line['conversions']),
                'revenue' => Claim::of(...$line['revenue']),
            ],
            $lines,
        );
    }

    /** @return iterable<array{string, int, int}> line, conversions, and their value in the client's currency */
    private function claimed(Asked $asked): iterable
    {
        [$client, $by, $within] = [$asked->client, $asked->by(), $asked->within];
        if (! $asked->isOfAds()) {
            foreach ($this->days->claimed($asked) as $row) {
                $value = $row->currency === $client->currency ? (int) $row->value : 0;
                yield [$by === null ? '' : (string) $row->{$by}, (int) $row->conversions, $value];
            }

            return;
        }
        $k = $by === null ? "''" : StairRecords::BY[$by][0];
        $only = $within === null ? '' : ' and '.StairRecords::BY[$within[0]][0].' = ?';
        $rows = DB::select(
            "select {$k} k, sum(f.conversions) conversions, sum(if(f.currency = ?, f.value, 0)) value
            from figures f join wanted_lines w on w.node_id = f.node_id
            where f.client_id = ? and f.day between ? and ?{$only} group by k",
            [$client->currency, $client->id, $asked->from, $asked->to, ...$within === null ? [] : [$within[1]]],
        );
        foreach ($rows as $row) {
            yield [(string) $row->k, (int) $row->conversions, (int) $row->value];
        }
    }

    /** @return iterable<object> by line, by what became of it, and by channel; conversions with a click ID apart */
    private function known(Asked $asked): iterable
    {
        [$client, $by, $within, $sessions] = [$asked->client, $asked->by(), $asked->within, $asked->sessions];
        [$from, $to] = [$asked->from, $asked->to];
        $k = $by === null ? "''" : StairRecords::BY[$by][1];
        $only = $within === null ? '' : ' and '.StairRecords::BY[$within[0]][1].' = ?';
        $counts = 'h.node_id is not null'
            .($by === null ? '' : ' and '.self::OF_SHARES[$by].' = p.k')
            .($within === null ? '' : ' and '.self::OF_SHARES[$within[0]].' = ?');
        $also = $within === null ? [] : [$within[1]];
        $click = "select {$k} k, c.arrival_id, c.at, c.is_repeated, c.currency, c.value, s.id, s.begin, s.day
            from conversions c straight_join {$sessions->table} s on %s
            straight_join wanted_lines w on w.node_id = s.node_id
            where c.client_id = ? and c.at >= ? and c.at < ? and c.is_test = 0 and %s
                and s.begin between c.at - interval ".self::DAYS." day and c.at and s.views > 0{$only}
                {$sessions->within('s')}";
        // put together by the server they take half as long again
        $halves = [
            sprintf($click, 's.collector_id = c.collector_id and s.visitor = c.visitor', "c.click_id = ''"),
            sprintf($click, 's.client_id = c.client_id and s.click_id = c.click_id', "c.click_id <> ''"),
        ];
        // a day more at each end: days are the client's
        $of = [
            $client->id,
            CarbonImmutable::parse($from)->subDay()->toDateString(),
            CarbonImmutable::parse($to)->addDays(self::DAYS + 2)->toDateString(),
            ...$also,
        ];

        foreach ($halves as $clicks) {
            yield from DB::select(
                "select p.k, coalesce(hs.channel, '') channel,
                    case when p.is_repeated then 'repeated' when {$counts} then 'counted'
                        when p.begin < p.at - interval ? day then 'outside' else 'elsewhere' end what,
                    sum(coalesce(h.part, ?)) parts, sum(if(h.value > 0 and h.net = 0, h.part, 0)) parts_back,
                    sum(if(p.currency = ?, coalesce(h.value, p.value, 0), 0)) value,
                    sum(if(p.currency = ?, coalesce(h.value - h.net, 0), 0)) value_back
                from (
                    select clicks.*, row_number() over (partition by k, arrival_id order by begin desc, id desc) n
                    from ({$clicks}) clicks
                ) p
                left join {$sessions->shares} h on h.conversion_id = p.arrival_id{$sessions->within('h')}
                left join {$sessions->table} hs on hs.id = h.session_id{$sessions->within('hs')}
                left join wanted_lines hw on hw.node_id = h.node_id
                where p.n = 1 and p.day between ? and ?
                group by p.k, channel, what",
                [
                    ...$also,
                    Settings::of($client)->attribution->days,
                    Share::WHOLE,
                    $client->currency,
                    $client->currency,
                    ...$of,
                    $from,
                    $to,
                ],
            );
        }
    }
}
