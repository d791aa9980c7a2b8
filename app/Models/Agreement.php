<?php

namespace App\Models;

use Carbon\CarbonImmutable;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A revision of what a client's people have agreed on.
 *
 * @property int $id
 * @property AgreementKind $kind
 * @property int $revision
 * @property string $from_day YYYY-MM-DD, in the client's time zone
 * @property array<string, mixed> $document
 * @property bool $begun its day has come
 * @property CarbonImmutable $created_at
 * @property Client $client
 * @property User|null $by
 */
final class Agreement extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected $casts = [
        'document' => 'array',
        'kind' => AgreementKind::class,
        'created_at' => 'immutable_datetime',
        'begun' => 'bool',
    ];

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
}
