<?php

namespace App\Troubles;

use App\Models\Account;
use App\Models\Node;
use Illuminate\Support\Facades\DB;

/** How many ads of an account are proven, broken, untracked: kept for each day, as it was at its end. */
final class ProofDay
{
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
