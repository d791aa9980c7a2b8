<?php

namespace App\Accounts;

use App\Dialects\Dialects;
use App\Models\Account;
use App\Models\Node;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Proof\Counterexample;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Proof\Verdict;

/** Proves every ad of an account against the client's plan and keeps what came of it. */
final class Proof
{
    private const CHUNK = 500;

    /** @param \Closure(int): void|null $progress told the number of ads done */
    public static function refresh(Account $account, ?\Closure $progress = null): void
    {
        $plan = $account->client->plan();
        $survey = new Survey(Trees::wide($account), $plan?->read(), app(Dialects::class)->rules());
        $rows = [];
        $done = 0;
        foreach (Trees::each($account, ads: true) as $row => $ad) {
            $verdict = $survey->ad($ad, (string) $row->parent_id);
            $now = ['id' => $row->id, 'state' => $verdict?->state->value, 'fault' => self::first($verdict), 'fault_keys' => self::keys($verdict)];
            if ([$row->state, $row->fault, $row->fault_keys] !== [$now['state'], $now['fault'], $now['fault_keys']]) {
                $rows[] = $now;
            }
            if (++$done % self::CHUNK === 0) {
                self::keep($rows);
                $progress && $progress($done);
                $rows = [];
            }
        }
        self::keep($rows);
        $progress && $progress($done);
        self::count($account);
        Found::keep($account, $survey->findings());
        $account->update(['plan_revision' => $plan?->revision]);
    }

    /** @return array<string, mixed> */
    public static function fault(Counterexample $c): array
    {
        return ['code' => $c->code, 'key' => $c->key, 'context' => $c->context, 'url' => $c->url, 'expected' => $c->expected, 'arrived' => $c->arrived, 'reason' => $c->reason];
    }

    private static function first(?Verdict $verdict): ?string
    {
        return isset($verdict?->counterexamples[0]) ? mb_substr($verdict->counterexamples[0]->reason, 0, 500) : null;
    }

    private static function keys(?Verdict $verdict): string
    {
        $keys = implode(',', array_unique(array_filter(array_map(static fn (Counterexample $c): string => $c->key, $verdict->counterexamples ?? []), strlen(...))));

        return strlen($keys) <= 255 ? $keys : substr($keys, 0, (int) strrpos(substr($keys, 0, 255), ','));
    }

    /** @param list<array{id: int, state: string|null, fault: string|null, fault_keys: string}> $rows */
    private static function keep(array $rows): void
    {
        if ($rows === []) {
            return;
        }
        $states = implode(' ', array_fill(0, count($rows), 'when ? then ?'));
        $values = static fn (string $column): array => array_merge(...array_map(static fn (array $r): array => [$r['id'], $r[$column]], $rows));
        $ids = array_column($rows, 'id');
        $marks = implode(',', array_fill(0, count($ids), '?'));
        DB::update(
            "update nodes set state = case id {$states} end, fault = case id {$states} end, fault_keys = case id {$states} end where id in ({$marks})",
            [...$values('state'), ...$values('fault'), ...$values('fault_keys'), ...$ids],
        );
    }

    /** Counts the ads below every node, by state, from the ads upwards. */
    private static function count(Account $account): void
    {
        $deepest = (int) Node::query()->where('account_id', $account->id)->max('depth');
        for ($depth = $deepest; $depth > 0; $depth--) {
            DB::update(
                'update nodes p join (select parent_id, sum(if(is_ad, 1, ads)) ads, sum(if(is_ad, coalesce(state = \'proven\', 0), proven)) proven,
                    sum(if(is_ad, coalesce(state = \'broken\', 0), broken)) broken, sum(if(is_ad, coalesce(state = \'untracked\', 0), untracked)) untracked
                    from nodes where account_id = ? and depth = ? group by parent_id) c on c.parent_id = p.id
                 set p.ads = c.ads, p.proven = c.proven, p.broken = c.broken, p.untracked = c.untracked',
                [$account->id, $depth],
            );
        }
    }
}
