<?php

namespace App\Accounts;

use App\Models\Account;
use App\Outside\Effects;
use App\Support\Overtaken;
use Vestigon\Core\Proof\Counterexample;

/** Proves every ad of an account against the client's plan and keeps what came of it, where it is not what was kept. */
final readonly class Proof
{
    public function __construct(private ProofPart $part, private ProofParts $parts) {}

    /**
     * @param int|null $processes null: as many as are worth it
     * @return bool false: a newer proof has begun, and this one has ended
     */
    public function refresh(Account $account, ?int $processes = null): bool
    {
        try {
            $this->run($account, ProofTurn::begin($account), $processes);

            return true;
        } catch (Overtaken) {
            return false;
        }
    }

    /** @throws Overtaken */
    private function run(Account $account, ProofTurn $turn, ?int $processes): void
    {
        $plan = $account->client->plan();
        $effects = Effects::waiting($account);
        $counts = new Counts();
        $survey = $this->part->survey($account);
        foreach ($this->parts->prove($account, $turn, $processes) as $part) {
            $survey->take($part->gathered);
            $counts->take($part->counts);
            $effects?->take($part->turned ?? []);
        }
        $turn->during(static function () use ($account, $counts, $survey, $plan, $effects): void {
            $counts->keep($account);
            Found::keep($account, $survey->findings());
            $account->update(['plan_revision' => $plan?->revision]);
            $effects?->keep($plan?->read());
        });
    }

    /** @return array<string, mixed> */
    public static function fault(Counterexample $c): array
    {
        return [
            'code' => $c->code,
            'key' => $c->key,
            'context' => $c->context,
            'url' => $c->url,
            'expected' => $c->expected,
            'arrived' => $c->arrived,
            'reason' => $c->reason,
        ];
    }
}
