<?php

namespace App\SignIn;

use App\Models\User;
use Carbon\CarbonImmutable;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** Where a person is signed in. A session is told by a digest of its number: the number itself is the key to it. */
final class Sessions
{
    /** @return list<array<string, mixed>> the latest first */
    public static function of(User $user, string $current): array
    {
        return array_map(
            static fn (object $s): array => [
                'id' => self::digest($s->id),
                'current' => $s->id === $current,
                'address' => $s->ip_address,
                'browser' => mb_strimwidth(mb_scrub((string) $s->user_agent), 0, 200, '…'),
                'seenAt' => CarbonImmutable::createFromTimestamp($s->last_activity)->toIso8601String(),
            ],
            self::query($user)->orderByDesc('last_activity')->get()->all(),
        );
    }

    /** @return bool false: there is no such session */
    public static function end(User $user, string $digest): bool
    {
        $id = self::query($user)
            ->pluck('id')
            ->first(static fn (string $id): bool => hash_equals(self::digest($id), $digest));

        return $id !== null && self::query($user)->where('id', $id)->delete() > 0;
    }

    /** Ends all others; with no current one, all. */
    public static function endOthers(User $user, ?string $current = null): int
    {
        return self::query($user)
            ->when($current !== null, static fn (Builder $q) => $q->where('id', '<>', $current))
            ->delete();
    }

    private static function query(User $user): Builder
    {
        return DB::table('sessions')->where('user_id', $user->id);
    }

    private static function digest(string $id): string
    {
        return substr(hash('sha256', $id), 0, 32);
    }
}
