<?php

namespace App\Accounts;

use App\Agreements\Agreements;
use App\Dialects\Dialects;
use App\Events\WorkWentOn;
use App\Models\Account;
use App\Outside\Effects;
use App\Support\Bulk;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Proof\Counterexample;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Proof\Verdict;

/**
 * Proves every ad of an account against the client's plan and keeps what came of it, where it is not what was kept.
 *
 * Each proof takes a turn; as soon as a newer one has begun, an older one ends and keeps nothing any more.
 */
final readonly class Proof
{
    private const CHUNK = 2000;

    private const COLUMNS = ['state' => 'varchar(12)', 'fault' => 'varchar(500)', 'fault_keys' => 'varchar(255)'];

    public function __construct(private Dialects $dialects, private Agreements $agreements) {}

    /** @return bool false: a newer proof has begun, and this one has ended */
    public function refresh(Account $account): bool
    {
        try {
            $this->run($account, self::newTurn($account));

            return true;
        } catch (Superseded) {
            return false;
        }
    }

    private static function newTurn(Account $account): int
    {
        return DB::transaction(static function () use ($account): int {
            Account::query()->whereKey($account->id)->increment('proof_turn');

            return (int) Account::query()->whereKey($account->id)->value('proof_turn');
        }, 5);
    }

    /** @throws Superseded */
    private function run(Account $account, int $turn): void
    {
        $plan = $account->client->plan();
        $rules = $this->dialects->rules($this->agreements->names($account->client_id));
        $survey = new Survey(Trees::wide($account), $plan?->agreed(), $rules);
        $counts = new Counts();
        $effects = Effects::waiting($account);
        $moved = [];
        $done = 0;
        foreach (Trees::each($account, ads: true) as $row => $ad) {
            $verdict = $survey->ad($ad, (string) $row->parent_id);
            $now = [
                'state' => $verdict?->state->value,
                'fault' => self::first($verdict),
                'fault_keys' => self::keys($verdict),
            ];
            $counts->ad($row->parent_id, $now['state']);
            if (
                $row->state !== $now['state']
                || $row->fault !== $now['fault']
                || $row->fault_keys !== $now['fault_keys']
            ) {
                $moved[] = ['id' => $row->id, ...$now];
                $effects?->ad($row->id, $row->parent_id, $row->state, $now['state']);
            }
            if (++$done % self::CHUNK === 0) {
                self::during($account, $turn, static fn () => Bulk::update('nodes', self::COLUMNS, $moved));
                $moved = [];
                WorkWentOn::dispatch();
            }
        }
        $keep = static function () use ($account, $moved, $counts, $survey, $plan, $effects): void {
            Bulk::update('nodes', self::COLUMNS, $moved);
            $counts->keep($account);
            Found::keep($account, $survey->findings());
            $account->update(['plan_revision' => $plan?->revision]);
            $effects?->keep($plan?->read());
        };
        self::during($account, $turn, $keep);
    }

    /**
     * Keeps some of it, if no newer proof has begun; none begins meanwhile.
     *
     * @throws Superseded
     */
    private static function during(Account $account, int $turn, \Closure $keep): void
    {
        DB::transaction(static function () use ($account, $turn, $keep): void {
            if ((int) Account::query()->whereKey($account->id)->lockForUpdate()->value('proof_turn') !== $turn) {
                throw new Superseded();
            }
            $keep();
        }, 5);
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

    private static function first(?Verdict $verdict): ?string
    {
        return isset($verdict?->counterexamples[0])
            ? mb_substr(mb_scrub($verdict->counterexamples[0]->reason), 0, 500)
            : null;
    }

    private static function keys(?Verdict $verdict): string
    {
        $keys = [];
        foreach ($verdict->counterexamples ?? [] as $c) {
            $keys[$c->key] = mb_scrub($c->key);
        }
        unset($keys['']);
        $keys = implode(',', $keys);

        return strlen($keys) <= 255 ? $keys : substr($keys, 0, (int) strrpos(substr($keys, 0, 255), ','));
    }
}
