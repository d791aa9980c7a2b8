<?php

namespace App\Console\Commands;

use App\Models\Client;
use App\Results\By;
use App\Results\Dimension;
use App\Results\Question;
use App\Results\Results;
use App\Results\Rollups;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

/** Times results of very many arrivals, made up for the bench's own database only. */
final class BenchResults extends Command
{
    use TellsFigures;

    protected $signature = 'bench:results {--arrivals=10000000 : half of them begin a session}';

    protected $description = 'Measures results by any two dimensions over 90 days';

    private const DAYS = 90;

    private const ASKED = 200;

    public function handle(Results $results, Rollups $rollups): int
    {
        $client = Client::query()->create([
            'name' => 'Bench',
            'slug' => 'bench'.time(),
            'time_zone' => 'UTC',
            'currency' => 'EUR',
        ]);
        $arrivals = (int) $this->option('arrivals');
        $from = now()->subDays(self::DAYS)->startOfDay();
        $this->fill($client, $arrivals, $from->toDateTimeString());
        $question = static fn (array $by): Question => new Question(
            $by,
            $from->toDateString(),
            $from
                ->copy()
                ->addDays(self::DAYS - 1)
                ->toDateString(),
        );

        $start = hrtime(true);
        $results->of($client, $question([...Rollups::pairs()][5]), null, 'sessions', false, 100);
        $this->line(
            sprintf('%-74s %8.2f', 'a first question that nobody has asked, s', (hrtime(true) - $start) / 1e9),
        );

        $start = hrtime(true);
        DB::select(
            'select day, channel, source, sum(views > 0), sum(views) from site_sessions
            where client_id = ? and day between ? and ? group by 1, 2, 3',
            [$client->id, $question([])->from, $question([])->to],
        );
        $plain = hrtime(true) - $start;
        $start = hrtime(true);
        $rollups->upToDate(
            $client,
            [By::of(Dimension::Channel), By::of(Dimension::Source)],
            $question([])->from,
            $question([])->to,
        );
        $this->figure('days added up by two dimensions; times one GROUP BY', (hrtime(true) - $start) / $plain, 3);

        $start = hrtime(true);
        $rollups->ahead($client);
        $this->line(sprintf('%-74s %8.2f', 'all pairs of dimensions, ahead, s', (hrtime(true) - $start) / 1e9));

        $this->figure(
            'rows of a set in the middle of all sets; for 300 arrivals',
            self::middle($client) / $arrivals * 300,
            1,
        );

        mt_srand(7);
        $ask = static fn (array $by): array => $results->of($client, $question($by), null, 'sessions', false, 100);
        $pairs = array_values(array_filter([...Rollups::pairs()], static fn (array $p): bool => count($p) === 2));
        $this->figure(
            "{$arrivals} arrivals: results by any two, ms at the 95th percentile",
            self::asked($ask, $pairs),
            500,
        );

        $many = self::manyValued();
        $start = hrtime(true);
        array_map($ask, $many);
        $this->line(
            sprintf('%-74s %8.2f', 'one of them with very many values, first asked, s', (hrtime(true) - $start) / 1e9),
        );
        $this->figure('the same once they were asked, ms at the 95th percentile', self::asked($ask, $many), 500);

        return $this->allMet();
    }

    /**
     * @param \Closure(list<By>): array<string, mixed> $ask
     * @param non-empty-list<list<By>> $pairs
     */
    private static function asked(\Closure $ask, array $pairs): float
    {
        $times = [];
        for ($i = 0; $i < self::ASKED; $i++) {
            $pair = $pairs[array_rand($pairs)];
            $start = hrtime(true);
            $ask($pair);
            $times[] = (hrtime(true) - $start) / 1e6;
        }

        return self::p95($times);
    }

    /** @return non-empty-list<list<By>> what people ask words and places by */
    private static function manyValued(): array
    {
        return array_map(
            static fn (array $pair): array => array_map(By::of(...), $pair),
            [
                [Dimension::Keyword, Dimension::Channel],
                [Dimension::Keyword, Dimension::Campaign],
                [Dimension::Placement, Dimension::Platform],
                [Dimension::Landing, Dimension::Source],
            ],
        );
    }

    /** @return int rows of the set that has as many sets that are smaller as sets that are larger */
    private static function middle(Client $client): int
    {
        $rows = DB::table('rollup_sets as s')
            ->leftJoin('rollups as r', 'r.set_id', '=', 's.id')
            ->where('s.client_id', $client->id)
            ->groupBy('s.id')
            ->selectRaw('count(r.set_id) n')
            ->pluck('n')
            ->sort()
            ->values();

        return (int) $rows[intdiv($rows->count(), 2)];
    }

    private function fill(Client $client, int $arrivals, string $from): void
    {
        $owner = DB::connection('owner'); // may make sequences
        $collector = $client->collectors()->create(['site' => 'Bench', 'hosts' => ['bench.example']]);
        $sessions = intdiv($arrivals, 2);
        // of 2,000 ads in 60 campaigns, of which few have most; 300 pages, 5,000 words searched for
        $ad = 'floor(2000 * pow(rand(1), 3))';
        $owner->statement(
            "insert into site_sessions (id, client_id, collector_id, visitor, begin, end, day, views, is_new,
                is_tracked, how, channel, source, medium, campaign, term, content, platform, click_id, keyword,
                placement, device, landing, account_id, campaign_id, group_id, node_id)
            select {$client->id} * 1000000000 + seq, {$client->id}, {$collector->id}, concat('v', floor(seq / 2)), at,
                at + interval 5 minute, date(at), 1 + seq % 3, seq % 2, 1, 'keys',
                elt(1 + ad % 7, 'Paid search', 'Paid social', 'Paid other', 'Mail', 'Organic', 'Direct', 'Referral'),
                concat('source-', ad % 9), elt(1 + ad % 5, 'cpc', 'paid', 'mail', 'referral', ''),
                concat('campaign-', ad % 60), '', concat('content-', ad), concat('platform-', ad % 8),
                concat('click', seq), concat('word ', seq % 5000), concat('place-', seq % 400),
                elt(1 + seq % 3, 'phone', 'tablet', 'computer'), concat('https://bench.example/', seq % 300),
                ad % 20, ad % 60, ad % 300, {$client->id} * 1000000000 + ad
            from (
                select seq, ? + interval floor(seq * ? / ?) second at, {$ad} ad from seq_1_to_{$sessions}
            ) s",
            [$from, self::DAYS * 86_400, $sessions],
        );
        $owner->statement(
            'insert into shares (conversion_id, n, client_id, day, session_id, part, value, net, currency, account_id,
                campaign_id, group_id, node_id)
            select id, 0, client_id, day, id, 1000000, 4900, 4900, \'EUR\', account_id, campaign_id, group_id, node_id
            from site_sessions where client_id = ? and id % 40 = 0',
            [$client->id],
        );
        $owner->statement(
            "insert into figures (client_id, day, account_id, campaign_id, group_id, node_id, impressions, clicks, cost,
                currency, conversions, value)
            select {$client->id}, date(?) + interval floor(seq / 2000) day, seq % 2000 % 20, seq % 2000 % 60,
                seq % 2000 % 300, {$client->id} * 1000000000 + seq % 2000, 900, 30, 1200, 'EUR', 0, 0
            from seq_0_to_".
                (2000 * self::DAYS - 1),
            [$from],
        );
        $owner->statement(
            'insert into result_days select distinct client_id, day, 1 from site_sessions where client_id = ?',
            [$client->id],
        );
    }
}
