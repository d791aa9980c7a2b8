<?php

namespace Tests\Bench;

use App\Accounts\Proof;
use App\Accounts\Trees;
use App\Dialects\Dialects;
use App\Models\Account;
use App\Models\Node;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Proof\Survey;

/** Times the proof of a million ads through the database against the core's own check of the same ads. */
final class BenchProof extends Command
{
    use TellsFigures;

    protected $signature = 'bench:proof';

    protected $description = 'Measures proofs through the database';

    private const MOST = 3.0;

    private const SHARED = 0.6;

    private const MEGABYTES = 512;

    /** Fewer changes than that whose old rows are still to be cleared away. */
    private const SETTLED = 100;

    public function handle(Proof $proof, Dialects $dialects): int
    {
        ini_set('memory_limit', '2G');
        $account = Account::query()->with('client')->where('external_id', 'million')->firstOrFail();
        [$ads, $check] = self::check($account, $dialects);
        foreach (['no verdict is new', 'every verdict is new'] as $what) {
            $took = [];
            // side by side, twice each: machines that others use too are slower for minutes now and then
            foreach ([1, 2, 1, 2] as $processes) {
                if ($what === 'every verdict is new') {
                    Node::query()
                        ->where(['account_id' => $account->id, 'is_ad' => true])
                        ->update(['state' => null, 'fault' => null]);
                }
                self::settle();
                $once = self::time(static fn () => $proof->refresh($account, $processes));
                $took[$processes] = min($once, $took[$processes] ?? INF);
            }
            $this->figure(
                'proof of '.number_format($ads)." ads where {$what}, times the core's check",
                $took[1] / $check,
                self::MOST,
            );
            $this->figure('the same by two processes, times by one', $took[2] / $took[1], self::SHARED);
        }
        $this->figure('the same, MB of memory', memory_get_peak_usage() / 1e6, self::MEGABYTES);

        return $this->allMet();
    }

    /** @return array{int, float} ads, and the seconds that the core takes for them, without reading them */
    private static function check(Account $account, Dialects $dialects): array
    {
        $wide = Trees::wide($account);
        $plan = $account->client->plan()?->read();
        $ads = 0;
        $survey = null;
        $took = self::time(static function () use ($wide, $plan, $dialects, &$survey): void {
            $survey = new Survey($wide, $plan, $dialects->rules());
        });
        foreach (Trees::each($account, ads: true) as $row => $ad) {
            $start = hrtime(true);
            $survey?->ad($ad, (string) $row->parent_id);
            $took += (hrtime(true) - $start) / 1e9;
            $ads++;
        }

        return [$ads, $took + self::time(static fn () => $survey?->findings())];
    }

    /** The database has done what was left to be done after the last change: it is no part of what is measured next. */
    private static function settle(): void
    {
        for ($tries = 0; $tries < 600; $tries++) {
            if ((int) DB::selectOne("show global status like 'Innodb_history_list_length'")->Value < self::SETTLED) {
                return;
            }
            usleep(100_000);
        }
    }

    private static function time(\Closure $work): float
    {
        $start = hrtime(true);
        $work();

        return (hrtime(true) - $start) / 1e9;
    }
}
