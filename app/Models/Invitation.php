<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A link by which one person comes in, once.
 *
 * @property int $id
 * @property int|null $client_id null: to the installation, as its first owner
 * @property Client|null $client
 * @property User|null $by
 * @property string|null $email whom it is for; null: whoever has the link
 * @property Role|null $role
 * @property \Illuminate\Support\Carbon $expires_at
 */
final class Invitation extends Model
{
    use NumberedInAddresses;

    protected $guarded = [];

    protected $hidden = ['digest'];

    protected $casts = ['role' => Role::class, 'expires_at' => 'datetime', 'used_at' => 'datetime'];

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class);
    }

    /** @return BelongsTo<User, $this> */
    public function by(): BelongsTo
    {
        return $this->belongsTo(User::class, 'user_id');
    }

    /** @param Builder<self> $query those that can still be used */
    public function scopeOpen(Builder $query): void
    {
        $query->whereNull('used_at')->where('expires_at', '>', now());
    }
}
