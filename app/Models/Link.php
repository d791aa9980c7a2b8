<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\SoftDeletes;
use Vestigon\Core\Link\Link as CoreLink;

/**
 * A link that people place themselves, where no platform fills anything in.
 *
 * @property int $id
 * @property int $client_id
 * @property string $title
 * @property string $landing
 * @property array<string, string> $pairs what it carries
 * @property string $url
 * @property string $host of its short address; empty: this installation's own
 * @property string|null $code
 * @property bool $forwards
 * @property \Illuminate\Support\Carbon|null $ends_at
 * @property string $fits of sessions that begin by it
 * @property string|null $fault the gravest thing that is wrong with it
 * @property int|null $made_by
 * @property \Illuminate\Support\Carbon $created_at
 * @property \Illuminate\Support\Carbon|null $gone_at
 */
final class Link extends Model
{
    use NumberedInAddresses, SoftDeletes;

    public const DELETED_AT = 'gone_at';

    protected $guarded = [];

    protected $casts = ['pairs' => 'array', 'forwards' => 'bool', 'ends_at' => 'datetime'];

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class);
    }

    /** @return BelongsTo<User, $this> */
    public function maker(): BelongsTo
    {
        return $this->belongsTo(User::class, 'made_by');
    }

    /** @return HasMany<LinkMove, $this> */
    public function moves(): HasMany
    {
        return $this->hasMany(LinkMove::class)->orderByDesc('id');
    }

    public function core(): CoreLink
    {
        return new CoreLink($this->landing, $this->pairs);
    }

    public function short(): ?string
    {
        return $this->code === null ? null : ShortHost::address($this->host)."/s/{$this->code}";
    }
}
