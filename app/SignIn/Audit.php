<?php

namespace App\SignIn;

use Carbon\CarbonImmutable;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** Who signed in and from where, and who changed roles and rules. It is only ever added to. */
final class Audit
{
    private const SHOWN = 50;

    /** @param array<string, mixed> $about never a secret */
    public static function note(string $what, ?int $user, ?int $client = null, array $about = []): void
    {
        DB::table('audit')->insert([
            'at' => now()->format('Y-m-d H:i:s.v'),
            'what' => $what,
            'user_id' => $user,
            'client_id' => $client,
            'address' => app()->runningInConsole() ? null : request()->ip(),
            'about' => json_encode((object) $about, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE),
        ]);
    }

    /** @return list<array<string, mixed>> what a person did lately */
    public static function ofPerson(int $user): array
    {
        return self::told(DB::table('audit')->where('user_id', $user));
    }

    /** @return list<array<string, mixed>> what was done to a client's roles and rules */
    public static function ofClient(int $client): array
    {
        return self::told(DB::table('audit')->where('client_id', $client));
    }

    /** @return list<array<string, mixed>> */
    private static function told(Builder $some): array
    {
        return array_map(
            static fn (object $r): array => [
                'at' => CarbonImmutable::parse($r->at, 'UTC')->toIso8601String(),
                'what' => $r->what,
                'who' => $r->who,
                'address' => $r->address,
                'about' => json_decode($r->about),
            ],
            $some
                ->leftJoin('users', 'users.id', 'audit.user_id')
                ->orderByDesc('audit.id')
                ->limit(self::SHOWN)
                ->get(['audit.at', 'audit.what', 'users.name as who', 'audit.address', 'audit.about'])
                ->all(),
        );
    }
}
