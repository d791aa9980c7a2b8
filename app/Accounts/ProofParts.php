<?php

namespace App\Accounts;

use App\Events\WorkWentOn;
use App\Models\Account;
use App\Models\Node;
use Illuminate\Console\Application;
use Illuminate\Process\InvokedProcessPool;
use Illuminate\Process\Pool;
use Illuminate\Support\Facades\Process;
use Illuminate\Support\Sleep;

/** Proves an account's ads: few in this process, many shared out among several beside it. */
final readonly class ProofParts
{
    /** A process of its own takes a moment to begin: fewer ads for each are not worth it. */
    private const FEWEST = 20_000;

    private const LONGEST = 1800; // seconds

    public function __construct(private ProofPart $part) {}

    /**
     * @param int|null $processes null: as many as `PROOF_PROCESSES` says, where there are ads enough
     * @return iterable<ProvenPart> in the order of the ads
     *
     * @throws Superseded
     */
    public function prove(Account $account, ProofTurn $turn, ?int $processes): iterable
    {
        $parts = self::divided($account, $processes);

        return count($parts) === 1
            ? [$this->part->prove($account, $turn, $parts[0])]
            : self::beside($turn, $parts);
    }

    /** @return list<Between> of about as many ads each */
    private static function divided(Account $account, ?int $processes): array
    {
        $ads = Node::query()->where(['account_id' => $account->id, 'is_ad' => true]);
        $count = $ads->clone()->count();
        $processes ??= max(1, min((int) config('queue.proof_processes'), intdiv($count, self::FEWEST)));
        $parts = [];
        $above = 0;
        for ($i = 1; $i < $processes; $i++) {
            $upTo = (int) $ads
                ->clone()
                ->orderBy('id')
                ->offset(intdiv($count * $i, $processes))
                ->value('id');
            $parts[] = new Between($above, $upTo);
            $above = $upTo;
        }
        $parts[] = new Between($above);

        return $parts;
    }

    /**
     * @param list<Between> $parts
     * @return list<ProvenPart>
     *
     * @throws Superseded
     */
    private static function beside(ProofTurn $turn, array $parts): array
    {
        $pool = Process::pool(static function (Pool $pool) use ($turn, $parts): void {
            foreach ($parts as $part) {
                $pool
                    ->path(base_path())
                    ->timeout(self::LONGEST)
                    ->command(
                        Application::formatCommandString(
                            "proof:part {$turn->account} {$turn->number} {$part->above} {$part->upTo}",
                        ),
                    );
            }
        })->start();
        try {
            while ($pool->running()->isNotEmpty()) {
                WorkWentOn::dispatch();
                Sleep::for(100)->milliseconds();
            }

            return self::handedOver($pool);
        } finally {
            $pool->running()->each->signal(SIGTERM);
        }
    }

    /**
     * @return list<ProvenPart>
     *
     * @throws Superseded
     */
    private static function handedOver(InvokedProcessPool $pool): array
    {
        $proven = [];
        foreach ($pool->wait()->collect() as $result) {
            if ($result->exitCode() === Superseded::EXIT) {
                throw new Superseded();
            }
            $part = $result->successful() ? unserialize(base64_decode($result->output())) : null;
            if (! $part instanceof ProvenPart) {
                $said = mb_substr(mb_scrub(trim("{$result->errorOutput()}\n{$result->output()}")), 0, 2000);
                throw new \RuntimeException("a part of a proof has failed: {$said}");
            }
            $proven[] = $part;
        }

        return $proven;
    }
}
