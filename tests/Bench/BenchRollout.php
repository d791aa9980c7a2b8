<?php

namespace Tests\Bench;

use App\Changes\Application;
use App\Changes\Drafting;
use App\Changes\Lease;
use App\Connectors\Connectors;
use App\Jobs\ImportAccounts;
use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Client;
use App\Models\Connection;
use App\Models\ImportStatus;
use App\Models\WriteState;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;

/**
 * Times drafting a change of a large account, and a rollout against a bare script that sends the same batches at the
 * same limit; for the bench's own database only.
 */
final class BenchRollout extends Command
{
    use TellsFigures;

    protected $signature = 'bench:rollout';

    protected $description = 'Measures drafting and rollouts';

    private const WRITES = 10_000;

    private const FIRST_SAMPLE_SECONDS = 2.0;

    private const TIMES_BARE = 1.5;

    private const IN_PIECES = 'working out every piece of the account';

    private const TELLS = [
        'taking a first look',
        'looking at ads from all over the account',
        self::IN_PIECES,
        'noting the writes',
    ];

    public function handle(): int
    {
        ini_set('memory_limit', '2G');
        $this->figure(
            'seconds from a draft to its first sample, 100,000 ads',
            $this->firstSample(Account::query()->where('external_id', 'grown')->firstOrFail()),
            self::FIRST_SAMPLE_SECONDS,
        );
        $this->figure(
            number_format(self::WRITES).' writes, times a bare script with the same batches and limit',
            $this->rollout(),
            self::TIMES_BARE,
        );

        return $this->allMet();
    }

    private function firstSample(Account $account): float
    {
        $change = $this->drafted($account->client, $account);
        $start = microtime(true);
        $first = null;
        $steps = [];
        Change::updated(static function (Change $c) use ($change, $start, &$first, &$steps): void {
            if ($c->id === $change->id) {
                $steps[$c->step] ??= 0;
                $before = (string) $c->getOriginal('step'); // other processes have told how far that came
                $steps[$before] = max($steps[$before] ?? 0, (int) $c->getOriginal('through'));
                if ($first === null && ($c->story['samples'] ?? []) !== []) {
                    $first = microtime(true) - $start;
                }
            }
        });
        (new Drafting($change))->run();
        Change::flushEventListeners();
        $ads = $account->nodes()->where('is_ad', true)->count();
        if (
            $change->refresh()->status !== ChangeStatus::Ready
            || ($change->story['ads'] ?? 0) !== $ads
            || array_diff(self::TELLS, array_keys($steps)) !== []
            || $steps[self::IN_PIECES] < $ads * 0.9
        ) {
            throw new \RuntimeException('the draft is not what it should be: '.json_encode($steps));
        }
        $this->line(
            sprintf(
                '%-74s %8.2f',
                'seconds to the whole draft of '
                    .number_format($ads)
                    .' ads, '
                    .number_format($change->story['writes'])
                    .' writes',
                microtime(true) - $start,
            ),
        );

        return $first ?? INF;
    }

    /** The rollout's time by the bare script's: half of the bare batches before, half after. */
    private function rollout(): float
    {
        $ours = $this->fleet(0);
        $bare = $this->fleet(1);
        $change = $this->drafted($ours->client, $ours);
        (new Drafting($change))->run();
        $this->stage($change, ChangeStatus::Trying);
        $half = intdiv(self::WRITES, 2);
        $time = $this->bare($bare, 0, $half);
        $start = microtime(true);
        $this->stage($change, ChangeStatus::Applying);
        $rollout = microtime(true) - $start;
        $time += $this->bare($bare, $half, $half);
        $written = $change->writes()->where('stage', '<>', 'trial')->where('state', WriteState::Verified)->count();
        if ($change->refresh()->status !== ChangeStatus::Done || $written < self::WRITES) {
            throw new \RuntimeException(
                "the rollout did not come to its end: {$change->status->value}, {$written} writes, {$change->problem}",
            );
        }

        return (($rollout / $time) * self::WRITES) / $written;
    }

    private function stage(Change $change, ChangeStatus $status): void
    {
        $change->update(['status' => $status, 'applied_by' => $change->user_id, 'checked' => false]);
        $change->load('account.link', 'account.client');
        $lease = Lease::take($change) ?? throw new \RuntimeException('somebody else is at the change');
        (new Application($change, app(Connectors::class)->to($change->account->link), $lease))->run();
        $lease->release();
    }

    /** Sends landing URLs in batches, one after the other, no faster than the limit. */
    private function bare(Account $account, int $from, int $many): float
    {
        $platform = config('platforms.ads.northquay-search');
        $http = Http::baseUrl($platform['address']);
        $token = $http->post('/v1/token', $account->link->credentials)->json('token');
        $nodes = DB::select(
            'select n.external_id, n.version, t.text from nodes n join texts t on t.node_id = n.id and t.kind = '
                ."'landing' and t.until is null where n.account_id = ? and n.is_ad order by n.id limit {$many} offset "
                ."{$from}",
            [$account->id],
        );
        $start = microtime(true);
        foreach (array_chunk($nodes, $platform['batch']) as $i => $some) {
            $wait = $start + $i / $platform['writes'] - microtime(true);
            usleep((int) max(0, $wait * 1e6));
            $answer = Http::baseUrl($platform['address'])
                ->withToken($token)
                ->withHeaders(['Idempotency-Key' => "bare-{$from}-{$i}-".bin2hex(random_bytes(4))])
                ->post("/v1/accounts/{$account->external_id}/updates", [
                    'updates' => array_map(
                        static fn (object $n): array => [
                            'node' => $n->external_id,
                            'version' => $n->version,
                            'slot' => 'landing',
                            'value' => str_replace('&utm_source=old', '', $n->text),
                        ],
                        $some,
                    ),
                ]);
            if (
                count(
                    array_filter($answer->json('results'), static fn (array $r): bool => $r['state'] === 'done'),
                ) !== count($some)
            ) {
                throw new \RuntimeException('the bare script was refused: '.substr($answer->body(), 0, 200));
            }
        }

        return microtime(true) - $start;
    }

    private function fleet(int $n): Account
    {
        Http::post('http://control.localhost:'.env('STANDINS_PORT').'/grow', [
            'ads' => self::WRITES,
            'fleet' => $n,
        ])->throw();
        $connection = Connection::query()->where('dialect', 'northquay-search')->orderBy('id')->firstOrFail();
        $fleet = Connection::query()->create([
            ...$connection->only('client_id', 'dialect', 'title'),
            'credentials' => $connection->credentials,
            'only_accounts' => 'NQ-'.(9000 + $n),
        ]);
        $import = $connection->client->imports()->create([
            'connection_id' => $fleet->id,
            'status' => ImportStatus::Queued,
        ]);
        ImportAccounts::dispatchSync($import->id);

        return Account::query()->with('link', 'client')->where('connection_id', $fleet->id)->firstOrFail();
    }

    private function drafted(Client $client, Account $account): Change
    {
        $plan = $client->plan() ?? throw new \RuntimeException('bench:pages writes the plan; run it first');

        return $client->changes()->create([
            'account_id' => $account->id,
            'title' => 'bench',
            'reason' => '',
            'status' => ChangeStatus::Drafting,
            'plan_revision' => $plan->revision,
            'policy' => ['existing' => 'replace', 'carrier' => 'fewest'],
            'user_id' => (int) DB::table('users')->min('id'),
        ]);
    }
}
