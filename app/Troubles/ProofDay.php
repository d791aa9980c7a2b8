<?php

namespace App\Troubles;

use App\Models\Account;
use App\Models\Client;
use App\Models\Node;
use Illuminate\Support\Facades\DB;

/** How many ads of an account are proven, broken, untracked: kept for each day, as it was at its end. */
final class ProofDay
{
    /** Proof is told of so many days. */
    private const DAYS = 60;

    /** @return list<array{day: string, proven: int, broken: int, untracked: int}> all accounts of a client together */
    public static function all(Client $client): array
    {
        return DB::table('proof_days as d')
            ->join('accounts as a', 'a.id', 'd.account_id')
            ->where('a.client_id', $client->id)
            ->where('d.day', '>=', Looking::since($client, self::DAYS))
            ->groupBy('d.day')
            ->orderBy('d.day')
            ->selectRaw('d.day, sum(d.proven) proven, sum(d.broken) broken, sum(d.untracked) untracked')
            ->get()
            ->map(
                static fn (object $d): array => [
                    'day' => (string) $d->day,
                    'proven' => (int) $d->proven,
                    'broken' => (int) $d->broken,
                    'untracked' => (int) $d->untracked,
                ],
            )
            ->all();
    }

    public static function keep(Account $account): void
    {
        $root = Node::query()->where('account_id', $account->id)->whereNull('parent_id')->where('depth', 0)->first();
        if ($root !== null) {
            DB::table('proof_days')->upsert(
                [
                    'account_id' => $account->id,
                    'day' => now($account->client->time_zone)->toDateString(),
                    'proven' => $root->proven,
                    'broken' => $root->broken,
                    'untracked' => $root->untracked,
                ],
                ['account_id', 'day'],
                ['proven', 'broken', 'untracked'],
            );
        }
    }
}
