<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * @property int $id
 * @property int $client_id
 * @property string $dialect
 * @property string $external_id
 * @property string $name
 * @property int|null $plan_revision
 * @property \Illuminate\Support\Carbon|null $known_since the end of its first import
 */
final class Account extends Model
{
    use NumberedInAddresses;

    protected $guarded = [];

    protected $dateFormat = 'Y-m-d H:i:s.v'; // what was live at a moment is told to the millisecond

    protected $casts = ['imported_at' => 'datetime', 'known_since' => 'datetime'];

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class);
    }

    /** @return BelongsTo<Connection, $this> */
    public function link(): BelongsTo
    {
        return $this->belongsTo(Connection::class, 'connection_id');
    }

    /** @return HasMany<Finding, $this> */
    public function findings(): HasMany
    {
        return $this->hasMany(Finding::class)->orderBy('position');
    }

    /** @return HasMany<Node, $this> */
    public function nodes(): HasMany
    {
        return $this->hasMany(Node::class);
    }
}
