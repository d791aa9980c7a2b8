<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * Where a client's arrivals come from: an analytics that is read, or pages that report to us.
 *
 * @property int $id
 * @property int $client_id
 * @property string $site
 * @property string|null $credentials of the analytics
 * @property string|null $key by which pages report to us; null: none do, or none do any more
 * @property string|null $token_hash of what servers hand conversions in by
 * @property list<string>|null $hosts that those pages are on; null: an analytics is read
 * @property Client $client
 * @property int $read_up_to
 */
final class Collector extends Model
{
    use NumberedInAddresses;

    public $timestamps = false;

    protected $guarded = [];

    protected $hidden = ['credentials', 'token_hash'];

    protected $casts = [
        'credentials' => 'encrypted',
        'hosts' => 'array',
        'read_at' => 'datetime',
        'created_at' => 'datetime',
    ];

    /** Do pages report to us? */
    public function isOurs(): bool
    {
        return $this->hosts !== null;
    }

    /** @return HasMany<SiteFile, $this> */
    public function siteFiles(): HasMany
    {
        return $this->hasMany(SiteFile::class);
    }

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class);
    }
}
