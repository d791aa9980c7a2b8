<?php

namespace App\Accounts;

use App\Dialects\Dialects;
use App\Models\Account;
use App\Models\Node;
use App\Support\Heartbeat;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Proof\Counterexample;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Proof\Verdict;

/**
 * Proves every ad of an account against the client's plan and keeps what came of it.
 *
 * Each proof takes a turn; as soon as a newer one has begun, an older one ends and keeps nothing any more.
 */
final class Proof
{
    private const CHUNK = 500;

    /** @return bool false: a newer proof has begun, and this one has ended */
    public static function refresh(Account $account): bool
    {
        try {
            self::run($account, self::newTurn($account));

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
    private static function run(Account $account, int $turn): void
    {
        $plan = $account->client->plan();
        $survey = new Survey(Trees::wide($account), $plan?->read(), app(Dialects::class)->rules());
        $rows = [];
        $done = 0;
        foreach (Trees::each($account, ads: true) as $row => $ad) {
            $verdict = $survey->ad($ad, (string) $row->parent_id);
            $now = [
                'id' => $row->id,
                'state' => $verdict?->state->value,
                'fault' => self::first($verdict),
                'fault_keys' => self::keys($verdict),
            ];
            if (
                [$row->state, $row->fault, $row->fault_keys] !== [
                    $now['state'],
                    $now['fault'],
                    $now['fault_keys'],
                ]
            ) {
                $rows[] = $now;
            }
            if (++$done % self::CHUNK === 0) {
                self::during($account, $turn, static fn () => self::keep($rows));
                $rows = [];
                Heartbeat::beat('worker');
            }
        }
        self::during($account, $turn, static function () use ($account, $rows, $survey, $plan): void {
            self::keep($rows);
            self::count($account);
            Found::keep($account, $survey->findings());
            $account->update(['plan_revision' => $plan?->revision]);
        });
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
            ? mb_substr($verdict->counterexamples[0]->reason, 0, 500)
            : null;
    }

    private static function keys(?Verdict $verdict): string
    {
        $keys = implode(
            ',',
            array_unique(
                array_filter(
                    array_map(static fn (Counterexample $c): string => $c->key, $verdict->counterexamples ?? []),
                    strlen(...),
                ),
            ),
        );

        return strlen($keys) <= 255 ? $keys : substr($keys, 0, (int) strrpos(substr($keys, 0, 255), ','));
    }

    /** @param list<array{id: int, state: string|null, fault: string|null, fault_keys: string}> $rows */
    private static function keep(array $rows): void
    {
        if ($rows === []) {
            return;
        }
        $states = implode(' ', array_fill(0, count($rows), 'when ? then ?'));
        $values = static fn (string $column): array => array_merge(
            ...array_map(static fn (array $r): array => [$r['id'], $r[$column]], $rows),
        );
        $ids = array_column($rows, 'id');
        $marks = implode(',', array_fill(0, count($ids), '?'));
        DB::update(
            "update nodes set state = case id {$states} end, fault = case id {$states} end, fault_keys = case id "
                ."{$states} end where id in ({$marks})",
            [...$values('state'), ...$values('fault'), ...$values('fault_keys'), ...$ids],
        );
    }

    /** Counts the ads below every node, by state, from the ads upwards. */
    private static function count(Account $account): void
    {
        $deepest = (int) Node::query()->where('account_id', $account->id)->max('depth');
        for ($depth = $deepest; $depth > 0; $depth--) {
            DB::update(
                'update nodes p left join (
                    select parent_id, sum(if(is_ad, 1, ads)) ads,
                        sum(if(is_ad, coalesce(state = \'proven\', 0), proven)) proven,
                        sum(if(is_ad, coalesce(state = \'broken\', 0), broken)) broken,
                        sum(if(is_ad, coalesce(state = \'untracked\', 0), untracked)) untracked
                    from nodes where account_id = ? and depth = ? and gone_at is null group by parent_id
                 ) c on c.parent_id = p.id
                 set p.ads = coalesce(c.ads, 0), p.proven = coalesce(c.proven, 0),
                    p.broken = coalesce(c.broken, 0), p.untracked = coalesce(c.untracked, 0)
                 where p.account_id = ? and p.depth = ? and p.gone_at is null and not p.is_ad',
                [$account->id, $depth, $account->id, $depth - 1],
            );
        }
    }
}
