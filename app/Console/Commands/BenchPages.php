<?php

namespace App\Console\Commands;

use App\Accounts\Proof;
use App\Models\Account;
use App\Models\User;
use Illuminate\Console\Command;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/**
 * Times pages of 200 rows against the SQL that they need, in one process; for the bench's own database only, since it
 * grows an account.
 */
final class BenchPages extends Command
{
    protected $signature = 'bench:pages {--copies=135 : how often the demo account is copied into the large one}';

    protected $description = 'Measures API answers as multiples of their SQL';

    private const ROUNDS = 25;

    private const WARM_UP = 15;

    /** @var list<float> milliseconds */
    private array $sql = [];

    public function handle(Kernel $kernel): int
    {
        DB::listen(function ($query): void {
            $this->sql[] = $query->time;
        });
        Auth::login(User::query()->where('email', 'mara@saltmarsh.example')->firstOrFail());
        $small = Account::query()->with('client')->where('external_id', 'NQ-2041')->firstOrFail();
        $small->client->plans()->create(['revision' => 1, 'document' => TestCase::PLAN]);
        Proof::refresh($small);
        $large = $this->grown($small);

        $missed = false;
        foreach ([$small, $large] as $account) {
            $ads = $account->nodes()->where('is_ad', true)->count();
            foreach (
                [
                    'broken ads' => 'state=broken',
                    'ads by name' => 'q=day+trips',
                    'broken, by name' => 'q=ferry+car&state=broken',
                ] as $what => $query
            ) {
                [$ratio, $ms, $rows] = $this->measure(
                    $kernel,
                    "/api/v1/clients/{$account->client_id}/accounts/{$account->id}/rows?limit=200&{$query}",
                );
                if ($rows < 200) {
                    continue; // no full page in the small account
                }
                $missed = $missed || $ratio > 3;
                $this->line(
                    sprintf(
                        '%-74s %8.1f   %-14s %s',
                        "page of {$rows}, {$what}, of {$ads} ads; times its SQL",
                        $ratio,
                        'at most 3',
                        $ratio <= 3 ? 'met' : "MISSED ({$ms} ms)",
                    ),
                );
            }
        }

        return $missed ? 1 : 0;
    }

    /** @return array{float, string, int} the median of whole time by SQL time, the median time, rows */
    private function measure(Kernel $kernel, string $path): array
    {
        $ratios = [];
        $times = [];
        $rows = 0;
        for ($i = 0; $i < self::WARM_UP + self::ROUNDS; $i++) {
            $this->sql = [];
            $start = hrtime(true);
            $response = $kernel->handle(
                Request::create(config('app.url').$path, 'GET', server: ['HTTP_ACCEPT' => 'application/json']),
            );
            $time = (hrtime(true) - $start) / 1e6;
            if ($i >= self::WARM_UP) {
                $times[] = $time;
                $ratios[] = $time / max(array_sum($this->sql), 0.001);
            }
            $rows = count(
                json_decode((string) $response->getContent(), true)['rows']
                    ?? throw new \RuntimeException((string) $response->getContent()),
            );
        }
        sort($ratios);
        sort($times);

        return [$ratios[intdiv(self::ROUNDS, 2)], sprintf('%.0f', $times[intdiv(self::ROUNDS, 2)]), $rows];
    }

    /** An account with many copies of another one's campaigns. */
    private function grown(Account $small): Account
    {
        $large = $small->replicate()->fill(['external_id' => 'grown', 'name' => 'Grown']);
        $large->save();
        $root = $small
            ->nodes()
            ->whereNull('parent_id')
            ->firstOrFail()
            ->replicate()
            ->fill(['account_id' => $large->id]);
        $root->save();
        $columns =
            'level, depth, position, name, type, facts, keywords, version, import_id, is_ad, state, fault, '
            .'fault_keys, ads, proven, broken, untracked';
        for ($k = 1, $copies = (int) $this->option('copies'); $k <= $copies; $k++) {
            $offset = $k * 1_000_000;
            DB::insert(
                "insert into nodes (id, account_id, parent_id, external_id, {$columns}) select id + {$offset}, "
                    ."{$large->id}, if(depth = 1, {$root->id}, parent_id + {$offset}), concat(external_id, '-{$k}'), "
                    ."{$columns} from nodes where account_id = ? and depth > 0",
                [$small->id],
            );
            DB::insert(
                "insert into texts (node_id, kind, name, text, since, until) select node_id + {$offset}, kind, name, "
                    .'text, since, until from texts where node_id in (select id from nodes where account_id = ? and '
                    .'depth > 0)',
                [$small->id],
            );
        }
        DB::statement('analyze table nodes, texts');

        return $large;
    }
}
