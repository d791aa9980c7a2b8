<?php

namespace App\Changes;

use App\Models\Change;
use App\Models\ChangeStatus;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\DB;

/**
 * Finds the changes that touch the same part of an account: what one writes on a node counts for all below it, so a
 * change of the one and a change of the other must not be mixed.
 */
final class Overlaps
{
    private const BELOW = 'with recursive up as (
            select n.id, n.parent_id from nodes n where n.id in (select node_id from change_writes where change_id = ?)
            union select p.id, p.parent_id from nodes p join up on up.parent_id = p.id
        ) select 1 from change_writes w join up on up.id = w.node_id where w.change_id = ? limit 1';

    /**
     * @param list<ChangeStatus> $in
     * @return list<array{id: int, title: string, status: string, places: int}> places: texts that both of them write
     */
    public static function with(Change $change, array $in): array
    {
        return array_values(
            self::others($change, $in)
                ->map(
                    static fn (Change $other): array => [
                        'id' => $other->id,
                        'title' => $other->title,
                        'status' => $other->status->value,
                        'places' => (int) DB::scalar(
                            'select count(*) from change_writes a join change_writes b on b.node_id = a.node_id and '
                                .'b.kind = a.kind and b.name = a.name where a.change_id = ? and b.change_id = ?',
                            [$change->id, $other->id],
                        ),
                    ],
                )
                ->all(),
        );
    }

    /** Why a change can't be started now; null if it can. */
    public static function forbid(Change $change): ?Forbidden
    {
        $other = self::others($change, ChangeStatus::underWay())->first(
            static fn (Change $c): bool => $c->id !== $change->takes_back,
        );
        if ($other !== null) {
            return new Forbidden(
                409,
                "“{$other->title}” (change {$other->id}) is under way on the same elements. Finish it or take "
                    .'it back '
                    .'first.',
            );
        }
        $begun = $change->status !== ChangeStatus::Ready;
        $since = $begun
            ? null
            : self::others($change, [ChangeStatus::Done, ChangeStatus::Partly])->first(
                static fn (Change $c): bool => $c->finished_at > $change->drafted_at
                    && $c->id !== $change->takes_back,
            );

        return $since === null
            ? null
            : new Forbidden(
                409,
                "“{$since->title}” (change {$since->id}) has been applied to the same elements since this one was "
                    .'worked out. Work it out again.',
            );
    }

    /**
     * @param list<ChangeStatus> $in
     * @return Collection<int, Change>
     */
    private static function others(Change $change, array $in): Collection
    {
        return Change::query()
            ->where('account_id', $change->account_id)
            ->whereKeyNot($change->id)
            ->whereIn('status', $in)
            ->orderBy('id')
            ->get()
            ->filter(
                static fn (Change $other): bool => self::touch($change->id, $other->id)
                    || self::touch($other->id, $change->id),
            );
    }

    /** Does any write of the one stand on or above a node of the other? */
    private static function touch(int $one, int $other): bool
    {
        return DB::select(self::BELOW, [$one, $other]) !== [];
    }
}
