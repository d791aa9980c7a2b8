<?php

namespace App\Models;

use App\Events\Noteworthy;
use Illuminate\Database\Eloquent\Relations\Pivot;

/**
 * What a person may do for a client. Every turn of it goes into the audit.
 *
 * @property int $user_id
 * @property int $client_id
 * @property string $role
 */
final class Membership extends Pivot
{
    public $timestamps = false;

    protected $table = 'memberships';

    protected static function booted(): void
    {
        self::created(static fn (self $m) => $m->note('role-given', ['role' => $m->role]));
        self::updated(
            static fn (self $m) => $m->note('role-changed', [
                'role' => $m->role,
                'before' => $m->getOriginal('role'),
            ]),
        );
        self::deleted(static fn (self $m) => $m->note('role-taken', []));
    }

    /** @param array<string, mixed> $about */
    private function note(string $what, array $about): void
    {
        Noteworthy::dispatch($what, auth()->id() === null ? null : (int) auth()->id(), $this->client_id, [
            'person' => $this->user_id,
            ...$about,
        ]);
    }
}
