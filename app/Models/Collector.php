<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Where a client's arrivals are read from.
 *
 * @property int $id
 * @property int $client_id
 * @property string $site
 * @property string $credentials
 * @property int $read_up_to
 */
final class Collector extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected $hidden = ['credentials'];

    protected $casts = ['credentials' => 'encrypted', 'read_at' => 'datetime'];

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class);
    }
}
