<?php

namespace Tests\Bench;

use App\Models\Client;
use App\Results\By;
use App\Results\Dimension;
use App\Results\Question;
use App\Results\Results;
use App\Results\Rollups;
use App\Results\RollupSet;
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
        $unasked = [By::of(Dimension::Landing), By::of(Dimension::Keyword)];
        $results->of($client, $question($unasked), null, 'sessions', false, 100);
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
            RollupSet::of([By::of(Dimension::Channel), By::of(Dimension::Source)]),
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
        $pairs = self::pairs();
        $isAhead = self::areAhead($client, $pairs);
        $this->line(sprintf('%-74s %8d', 'pairs of dimensions', count($pairs)));
        $this->line(sprintf('%-74s %8d', '  of which not ahead: too many lines', count($pairs) - count($isAhead)));
        foreach (array_diff_key($pairs, $isAhead) as $pair) {
            $start = hrtime(true);
            $ask($pair);
            $this->line(
                sprintf('%-74s %8.2f', '  first asked, s: '.self::called($pair), (hrtime(true) - $start) / 1e9),
            );
        }
        $rollups->ahead($client); // as every ten minutes: what was asked is added up by week too
        $times = self::asked($ask, $pairs);
        $this->figure(
            "{$arrivals} arrivals: results by any two, ms at the 95th percentile",
            self::p95(array_merge(...array_values($times))),
            500,
        );
        $slowest = array_map(static fn (array $t): float => self::p95($t), $times);
        arsort($slowest);
        foreach (array_slice($slowest, 0, 8, true) as $pair => $time) {
            $this->line(sprintf('%-74s %8.2f', "  of the slowest, ms: {$pair}", $time));
        }

        return $this->allMet();
    }

    /** @return non-empty-list<list<By>> any two */
    private static function pairs(): array
    {
        $all = array_values(
            array_filter(
                Dimension::cases(),
                static fn (Dimension $d): bool => ! $d->isTime() && $d !== Dimension::Key,
            ),
        );
        $pairs = [];
        foreach ($all as $i => $one) {
            foreach (array_slice($all, $i + 1) as $other) {
                $pairs[] = [By::of($one), By::of($other)];
            }
        }

        return $pairs;
    }

    /**
     * @param \Closure(list<By>): array<string, mixed> $ask
     * @param non-empty-list<list<By>> $pairs
     * @return array<string, list<float>> milliseconds, of each pair that was asked
     */
    private static function asked(\Closure $ask, array $pairs): array
    {
        $times = [];
        for ($i = 0; $i < self::ASKED; $i++) {
            $pair = $pairs[array_rand($pairs)];
            $start = hrtime(true);
            $ask($pair);
            $times[self::called($pair)][] = (hrtime(true) - $start) / 1e6;
        }

        return $times;
    }

    /**
     * @param list<list<By>> $pairs
     * @return array<int, list<By>> those that are kept
     */
    private static function areAhead(Client $client, array $pairs): array
    {
        $sets = DB::table('rollup_sets')->where('client_id', $client->id)->pluck('id', 'dimensions');

        return array_filter($pairs, static fn (array $pair): bool => isset($sets[RollupSet::of($pair)->name()]));
    }

    /** @param list<By> $pair */
    private static function called(array $pair): string
    {
        return implode(',', array_map(static fn (By $b): string => $b->column(), $pair));
    }

    /** @return int rows of the set that has as many sets that are smaller as sets that are larger */
    private static function middle(Client $client): int
    {
        $rows = DB::table('rollup_sets as s')
            ->leftJoin('rollups as r', static fn ($on) => $on->on('r.set_id', 's.id')->where('r.weeks', 0))
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
        // of 2,000 ads, of which few have most, in 300 groups, 60 campaigns and 20 accounts, as accounts are made: a
        // campaign is of one platform and channel; a word is searched for in one group, 111 of them, few of them most;
        // of 400 placements any ad of two channels may be on each; a group has one of 100 pages in three wordings
        $ad = 'floor(2000 * pow(rand(1), 3))';
        $owner->statement(
            "set statement optimizer_switch = 'derived_merge=off' for
            insert into site_sessions (id, client_id, collector_id, visitor, begin, end, day, views, is_new,
                is_tracked, how, channel, source, medium, campaign, term, content, platform, click_id, keyword,
                placement, device, landing, account_id, campaign_id, group_id, node_id)
            select {$client->id} * 1000000000 + seq, {$client->id}, {$collector->id}, concat('v', floor(seq / 2)), at,
                at + interval 5 minute, date(at), 1 + seq % 3, rand(5) < 0.5, 1, 'keys',
                elt(1 + ad % 60 % 7, 'Paid search', 'Paid social', 'Paid other', 'Mail', 'Organic', 'Direct', 'Links'),
                concat('source-', ad % 60 % 9), elt(1 + ad % 60 % 5, 'cpc', 'paid', 'mail', 'referral', ''),
                concat('campaign-', ad % 60), if(ad % 60 % 7 = 0, word, ''), concat('content-', ad),
                concat('platform-', ad % 60 % 8), concat('click', seq), if(ad % 60 % 7 = 0, word, ''),
                if(ad % 60 % 7 in (1, 2), concat('place-', floor(400 * pow(rand(3), 2))), ''),
                elt(1 + floor(3 * pow(rand(4), 2)), 'phone', 'computer', 'tablet'),
                concat('https://bench.example/', ad % 300 % 100, '/', floor(3 * rand(6))),
                ad % 20, ad % 60, ad % 300, {$client->id} * 1000000000 + ad
            from (
                select seq, at, ad, concat('word ', ad % 300, ' ', floor(111 * pow(rand(2), 2))) word
                from (select seq, ? + interval floor(seq * ? / ?) second at, {$ad} ad from seq_1_to_{$sessions}) a
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
