<?php

namespace Tests\Bench;

use App\Balance\Asked;
use App\Balance\Claims;
use App\Balance\StairDays;
use App\Balance\Stairs;
use App\Models\Client;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

/** Times balances of 90 days and very many ads, made up for the bench's own database only. */
final class BenchBalance extends Command
{
    use TellsFigures;

    protected $signature = 'bench:balance {--ads=100000} {--sessions=1000000}';

    protected $description = 'Measures balances of 90 days';

    private const DAYS = 90;

    private const ROUNDS = 15;

    public function handle(Stairs $stairs, StairDays $days, Claims $claims): int
    {
        $client = Client::query()->create([
            'name' => 'Balance',
            'slug' => 'balance'.time(),
            'time_zone' => 'UTC',
            'currency' => 'EUR',
        ]);
        $from = now()->subDays(self::DAYS)->startOfDay();
        [$first, $last] = [$from->toDateString(), now()->toDateString()];
        $this->fill($client, (int) $this->option('ads'), (int) $this->option('sessions'), $first);
        $start = hrtime(true);
        $stairs->of(new Asked($client, $first, $last));
        $this->figure('a first balance, before any day is added up, ms', (hrtime(true) - $start) / 1e6, 1000);
        $start = hrtime(true);
        $days->refresh($client, $first, $last);
        $this->line(
            sprintf('%-74s %8.2f', 'the days of it added up, nobody waits, s', (hrtime(true) - $start) / 1e9),
        );
        foreach (['platform' => 1000, 'campaign' => 2000] as $by => $most) {
            $ads = number_format((int) $this->option('ads'));
            foreach (['balance' => $stairs, 'claims' => $claims] as $what => $told) {
                $this->figure(
                    "{$ads} ads, 90 days: {$what} by {$by}, ms, 95th percentile",
                    self::p95($this->times(static fn (): array => $told->of(new Asked($client, $first, $last, [$by])))),
                    $most,
                );
            }
        }
        $campaign = (int) DB::table('stair_lines')->where('client_id', $client->id)->value('campaign_id');
        $this->figure(
            'the ads of one campaign, ms, 95th percentile',
            self::p95(
                $this->times(
                    static fn (): array => $stairs->of(
                        new Asked($client, $first, $last, ['ad'], ['campaign', $campaign]),
                    ),
                ),
            ),
            2000,
        );

        return $this->allMet();
    }

    /** @return list<float> milliseconds */
    private function times(\Closure $asked): array
    {
        $times = [];
        for ($i = 0; $i < self::ROUNDS; $i++) {
            $start = hrtime(true);
            $asked();
            $times[] = (hrtime(true) - $start) / 1e6;
        }

        return $times;
    }

    /** Of 100 ads each a campaign, of 50 campaigns an account, of five accounts a platform. */
    private function fill(Client $client, int $ads, int $sessions, string $from): void
    {
        $owner = DB::connection('owner'); // may make sequences
        $base = $client->id * 1_000_000_000;
        $collector = $client->collectors()->create(['site' => 'Balance', 'hosts' => ['balance.example']]);
        $account = self::accounts($client, intdiv($ads, 5000) + 1);
        $owner->statement(
            "insert into wanted_lines (node_id, client_id, platform, reach, channel)
            select {$base} + seq, {$client->id}, concat('platform-', floor(seq / 25000)),
                case when seq % 20 = 0 then 'broken' when seq % 31 = 0 then 'untracked' else 'ok' end, 'Paid search'
            from seq_0_to_".($ads - 1),
        );
        for ($day = 0; $day < self::DAYS; $day++) {
            $owner->statement(
                "insert into figures (client_id, day, account_id, campaign_id, group_id, node_id, impressions, clicks,
                    cost, currency, conversions, value)
                select {$client->id}, date(?) + interval {$day} day, {$account} + floor(seq / 5000), floor(seq / 100),
                    floor(seq / 20), {$base} + seq, 900, 3, 120, 'EUR', seq % 10 = 0,
                    if(seq % 10 = 0, 4900, 0) from seq_0_to_".($ads - 1),
                [$from],
            );
        }
        $owner->statement(
            "insert into site_sessions (id, client_id, collector_id, visitor, begin, end, day, views, is_new,
                is_tracked, how, channel, source, medium, campaign, term, content, platform, click_id, keyword,
                placement, device, landing, account_id, campaign_id, group_id, node_id)
            select {$base} + seq, {$client->id}, {$collector->id}, concat('v', seq), at, at + interval 5 minute,
                date(at), 1, 1, 1, 'keys', if(seq % 9 = 0, 'Mail', 'Paid search'), 'source', 'cpc',
                concat('campaign-', floor(ad / 100)), '', '', '', concat('click', floor(seq * 0.99)), '', '', 'phone',
                '', {$account} + floor(ad / 5000), floor(ad / 100), floor(ad / 20), {$base} + ad
            from (
                select seq, ? + interval floor(seq * ? / ?) second at, floor({$ads} * rand(1)) ad
                from seq_1_to_{$sessions}
            ) s",
            [$from, self::DAYS * 86_400, $sessions],
        );
        // every 40th buys
        $owner->statement(
            "insert into conversions (arrival_id, client_id, collector_id, at, visitor, order_number, value, currency,
                came_at)
            select id, client_id, collector_id, begin + interval 3 minute, visitor, concat('o', id), 4900, 'EUR', begin
            from site_sessions where client_id = ? and id % 40 = 0",
            [$client->id],
        );
        $owner->statement(
            "insert into shares (conversion_id, n, client_id, day, session_id, part, value, net, currency, account_id,
                campaign_id, group_id, node_id)
            select id, 0, client_id, day, id, 1000000, 4900, 4900, 'EUR', account_id, campaign_id, group_id, node_id
            from site_sessions where client_id = ? and id % 40 = 0",
            [$client->id],
        );
        $owner->statement(
            'insert into result_days select distinct client_id, day, 1 from figures where client_id = ?',
            [$client->id],
        );
        $owner->statement('analyze table figures, site_sessions, wanted_lines, conversions, shares');
    }

    /** @return int the first of so many, one behind the other */
    private static function accounts(Client $client, int $many): int
    {
        $connection = $client
            ->connections()
            ->create(['dialect' => 'northquay-search', 'title' => 'Bench', 'credentials' => []]);
        $first = (int) DB::table('accounts')->max('id') + 1;
        for ($i = 0; $i < $many; $i++) {
            DB::table('accounts')->insert([
                'id' => $first + $i,
                'client_id' => $client->id,
                'connection_id' => $connection->id,
                'dialect' => 'northquay-search',
                'external_id' => "bench {$i}",
                'name' => "Bench {$i}",
            ]);
        }

        return $first;
    }
}
