<?php

namespace App\Accounts;

use App\Models\Account;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** What the last import of an account delivered and could not be taken over. */
final class SetApart
{
    private const SHOWN = 200;

    /**
     * @param list<int> $accounts
     * @return array<int, int> how many, by account
     */
    public static function counts(array $accounts): array
    {
        return array_map(
            intval(...),
            self::latest($accounts)
                ->groupBy('account_id')
                ->selectRaw('account_id, count(distinct level, external_id) n')
                ->pluck('n', 'account_id')
                ->all(),
        );
    }

    /** @return list<array{level: string, externalId: string, name: string, why: string}> */
    public static function of(Account $account): array
    {
        return array_map(
            static fn (object $r): array => [
                'level' => $r->level,
                'externalId' => $r->external_id,
                'name' => $r->name,
                'why' => $r->why,
            ],
            self::latest([$account->id])
                ->orderBy('set_apart.id')
                ->limit(self::SHOWN)
                ->get()
                ->all(),
        );
    }

    /** @param list<int> $accounts */
    private static function latest(array $accounts): Builder
    {
        return DB::table('set_apart')
            ->whereIn('account_id', $accounts)
            ->whereRaw(
                'import_id = (select n.import_id from nodes n where n.account_id = set_apart.account_id and '
                    .'n.parent_id is null and n.gone_at is null limit 1)',
            );
    }
}
