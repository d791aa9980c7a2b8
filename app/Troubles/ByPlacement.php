<?php

namespace App\Troubles;

use App\Models\Client;
use App\Models\Trouble;
use Illuminate\Support\Facades\DB;

/** On which placements something arrives wrong: a platform's token may give nothing on some. */
final class ByPlacement
{
    private const MOST = 6;

    /** @return list<array{placement: string, wrong: int, sessions: int}> most of it first; none if there is but one */
    public static function of(Client $client, Trouble $trouble): array
    {
        $values = $trouble->about['values'] ?? [];
        if ($trouble->kind !== TroubleKind::Arrives || $values === [] || $trouble->account_id === null) {
            return [];
        }
        $isWrong = ArrivedWith::oneOf($trouble->about['name'] ?? 'source', $values);
        $rows = DB::table('site_sessions as s')
            ->where(['s.client_id' => $client->id, 's.account_id' => $trouble->account_id])
            ->where('s.day', '>=', Looking::since($client))
            ->where('s.views', '>', 0)
            ->groupBy('s.placement')
            ->selectRaw("s.placement, sum({$isWrong}) wrong, count(*) sessions", $values)
            ->orderByDesc('wrong')
            ->orderBy('s.placement')
            ->limit(self::MOST)
            ->get()
            ->map(static fn (object $r): array => [
                'placement' => $r->placement,
                'wrong' => (int) $r->wrong,
                'sessions' => (int) $r->sessions,
            ])
            ->all();

        return count($rows) < 2 ? [] : $rows;
    }
}
