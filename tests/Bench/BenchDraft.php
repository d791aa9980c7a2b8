<?php

namespace Tests\Bench;

use App\Accounts\Trees;
use App\Changes\Drafting;
use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Compile\Compiler;

/** Times the draft of a change of a million ads through the database against the core's own compilation of them. */
final class BenchDraft extends Command
{
    use TellsFigures;

    protected $signature = 'bench:draft {--account=million : its number at the platform}';

    protected $description = 'Measures a draft of a million ads through the database';

    private const MOST = 3.0;

    private const MEGABYTES = 512;

    public function handle(): int
    {
        $account = Account::query()
            ->with('client', 'link')
            ->where('external_id', $this->option('account'))
            ->firstOrFail();
        $change = Change::query()->create([
            'client_id' => $account->client_id,
            'account_id' => $account->id,
            'title' => 'All of it',
            'reason' => '',
            'user_id' => (int) DB::table('users')->min('id'),
            'status' => ChangeStatus::Drafting,
            'policy' => ['existing' => 'replace', 'carrier' => 'fewest'],
            'plan_revision' => $account->client->plans()->max('revision'),
        ]);
        $drafting = new Drafting($change);
        $start = hrtime(true);
        $drafting->run();
        $draft = (hrtime(true) - $start) / 1e9;
        $memory = max($drafting->memory, memory_get_peak_usage(true)) / 1e6;
        $change->refresh();
        if ($change->status !== ChangeStatus::Ready || ($change->story['states']['after']['broken'] ?? 0) !== 0) {
            throw new \RuntimeException('the draft is not what it should be: '.json_encode($change->story));
        }

        ini_set('memory_limit', '12G');
        gc_disable();
        $whole = Trees::whole($account);
        $plan = $account->client->plan()?->read() ?? throw new \RuntimeException('there is no plan');
        $start = hrtime(true);
        $compiled = Compiler::compile($whole, $plan);
        $compile = (hrtime(true) - $start) / 1e9;

        $this->figure(
            'a draft of '.number_format((int) $change->story['ads']).' ads with '
                .number_format((int) $change->story['writes']).' writes, times the core\'s compilation',
            $draft / $compile,
            self::MOST,
        );
        $this->figure('the same, MB of memory of a process', $memory, self::MEGABYTES);
        $this->figure(
            'the same, writes by those of one piece',
            $change->story['writes'] / max(1, count($compiled->writes)),
            1.0,
        );

        return $this->allMet();
    }
}
