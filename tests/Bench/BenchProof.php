<?php

namespace Tests\Bench;

use App\Accounts\Proof;
use App\Accounts\Trees;
use App\Dialects\Dialects;
use App\Models\Account;
use App\Models\Node;
use Illuminate\Console\Command;
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

    public function handle(Proof $proof, Dialects $dialects): int
    {
        ini_set('memory_limit', '2G');
        $account = Account::query()->with('client')->where('external_id', 'million')->firstOrFail();
        [$ads, $check] = self::check($account, $dialects);
        foreach (['no verdict is new', 'every verdict is new'] as $what) {
            $took = [];
            foreach ([1, 2] as $processes) {
                if ($what === 'every verdict is new') {
                    Node::query()
                        ->where(['account_id' => $account->id, 'is_ad' => true])
                        ->update(['state' => null, 'fault' => null]);
                }
                $took[$processes] = self::time(static fn () => $proof->refresh($account, $processes));
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

    private static function time(\Closure $work): float
    {
        $start = hrtime(true);
        $work();

        return (hrtime(true) - $start) / 1e9;
    }
}
