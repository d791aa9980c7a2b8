<?php

namespace Tests\Bench;

use App\Accounts\Proof;
use App\Models\Account;
use App\Models\Client;
use App\Models\User;
use App\Troubles\ProofDay;
use App\Troubles\Troubles;
use Illuminate\Console\Command;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Tests\TestCase;

/** Times the audit of many accounts; for the bench's own database only, since it grows them. */
final class BenchAudit extends Command
{
    use TellsFigures;

    protected $signature = 'bench:audit
        {--accounts=20}
        {--copies=68 : how often the demo account is copied into each: 50,000 ads}';

    protected $description = 'Measures how the audit of very many ads opens';

    private const ROUNDS = 40;

    private const WARM_UP = 5;

    /** Days of figures; every third ad is clicked on each of them. */
    private const DAYS = 30;

    public function handle(Kernel $kernel, Troubles $troubles): int
    {
        Auth::login(User::query()->where('email', 'mara@saltmarsh.example')->firstOrFail());
        $small = Account::query()->with('client')->where('external_id', 'NQ-2041')->firstOrFail();
        $client = $small->client;
        $client->plans()->firstOrCreate(['revision' => 1], ['document' => TestCase::PLAN]);
        app(Proof::class)->refresh($small);
        $ads = 0;
        for ($i = 1; $i <= (int) $this->option('accounts'); $i++) {
            $account = Grown::from($small, "audit {$i}", (int) $this->option('copies'));
            ProofDay::keep($account);
            self::clicked($account);
            $ads += $account->nodes()->where('is_ad', true)->count();
        }
        DB::statement('analyze table figures');
        $start = hrtime(true);
        $troubles->look($client);
        $this->line(sprintf('%-74s %8.2f', 'a look for what is wrong, nobody waits, s', (hrtime(true) - $start) / 1e9));

        Queue::fake(); // a worker looks again, not who asks
        $this->opened($kernel, $client); // adds up what the days have cost
        $times = [];
        for ($i = 0; $i < self::WARM_UP + self::ROUNDS; $i++) {
            $start = hrtime(true);
            $this->opened($kernel, $client);
            $times[] = (hrtime(true) - $start) / 1e6;
        }
        $this->figure(
            number_format($ads).' ads in '.$this->option('accounts').' accounts: Audit, ms at the 95th percentile',
            self::p95(array_slice($times, self::WARM_UP)),
            300,
        );

        return $this->allMet();
    }

    private function opened(Kernel $kernel, Client $client): void
    {
        $path = config('app.url')."/api/v1/clients/{$client->id}/troubles";
        $answer = $kernel->handle(Request::create($path, 'GET', server: ['HTTP_ACCEPT' => 'application/json']));
        if ($answer->getStatusCode() !== 200 || json_decode((string) $answer->getContent(), true)['items'] === []) {
            throw new \RuntimeException("the audit is answered {$answer->getContent()}");
        }
    }

    private static function clicked(Account $account): void
    {
        // may make sequences
        DB::connection('owner')->insert(
            'insert into figures (client_id, day, account_id, campaign_id, group_id, node_id, impressions, clicks, cost,
                currency, conversions, value)
            select ?, current_date - interval d.seq day, n.account_id, g.parent_id, g.id, n.id, 90, 3, 120, \'EUR\',
                0, 0
            from nodes n join nodes g on g.id = n.parent_id join seq_1_to_'.self::DAYS.' d
            where n.account_id = ? and n.is_ad and n.id % 3 = 0',
            [$account->client_id, $account->id],
        );
    }
}
