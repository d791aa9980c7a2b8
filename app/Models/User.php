<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Factories\HasFactory;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Foundation\Auth\User as Authenticatable;
use Laravel\Sanctum\HasApiTokens;

/**
 * @property int $id
 * @property string $name
 * @property string $email as Email::normal() writes it
 * @property string $password its hash
 * @property bool $founder may make clients, wherever a member
 * @property string|null $second_factor the secret, in base64
 * @property int|null $second_factor_step
 * @property list<string>|null $recovery digests of recovery words
 */
final class User extends Authenticatable
{
    /** @use HasFactory<\Database\Factories\UserFactory> */
    use HasApiTokens, HasFactory;

    protected $guarded = [];

    protected $hidden = ['password', 'remember_token', 'second_factor', 'recovery'];

    protected $casts = [
        'password' => 'hashed',
        'second_factor' => 'encrypted',
        'recovery' => 'array',
        'founder' => 'bool',
    ];

    /** What this person may do for a client; null: nothing, not even see that it is there. */
    public function roleAt(Client $client): ?Role
    {
        return Role::tryFrom($this->clients()->find($client->id)->pivot->role ?? '');
    }

    /** May this person make a client? Who is here first, and who owns one. */
    public function mayFound(): bool
    {
        return $this->founder || $this->clients()->wherePivot('role', Role::Owner->value)->exists();
    }

    /** @return BelongsToMany<Client, $this> */
    public function clients(): BelongsToMany
    {
        return $this->belongsToMany(Client::class, 'memberships')
            ->using(Membership::class)
            ->withPivot('role')
            ->orderBy('clients.name');
    }
}
