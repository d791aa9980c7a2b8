<?php

namespace App\SignIn;

use App\Models\Client;
use App\Models\Invitation;
use App\Models\Role;
use App\Models\User;
use Closure;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** Links by which people come in. Only a digest of what is in a link is kept; each is good once, and for some time. */
final class Invitations
{
    /** @return array{Invitation, string} and the link */
    public function make(?Client $client, ?User $by, ?string $email, ?Role $role): array
    {
        $token = Str::random(48);
        $invitation = Invitation::query()->create([
            'client_id' => $client?->id,
            'user_id' => $by?->id,
            'email' => $email === null ? null : Email::normal($email),
            'role' => $role,
            'digest' => self::digest($token),
            'expires_at' => now()->addMinutes(config('limits.invitation')),
        ]);

        return [$invitation, config('app.url')."/join#{$token}"];
    }

    /** The first owner's: there is one as long as nobody is here. @return string|null the link; null: somebody is here */
    public function first(): ?string
    {
        return DB::transaction(function (): ?string {
            if (User::query()->lockForUpdate()->exists()) {
                return null;
            }
            Invitation::query()->whereNull('client_id')->delete();

            return $this->make(null, null, null, null)[1];
        });
    }

    public function find(string $token): ?Invitation
    {
        return Invitation::query()->open()->with('client', 'by')->where('digest', self::digest($token))->first();
    }

    /**
     * Uses a link up for a person.
     *
     * @param Closure(Invitation): User $who
     * @return User|null null: the link is not good any more
     */
    public function use(string $token, Closure $who): ?User
    {
        return DB::transaction(function () use ($token, $who): ?User {
            $invitation = Invitation::query()
                ->open()
                ->where('digest', self::digest($token))
                ->lockForUpdate()
                ->first();
            if ($invitation === null) {
                return null;
            }
            $user = $who($invitation);
            $invitation->update(['used_at' => now(), 'used_by' => $user->id]);
            if ($invitation->client_id !== null && ! $user->clients()->whereKey($invitation->client_id)->exists()) {
                $user->clients()->attach($invitation->client_id, ['role' => $invitation->role?->value]);
            }

            return $user;
        }, 5);
    }

    private static function digest(string $token): string
    {
        return hash('sha256', $token);
    }
}
