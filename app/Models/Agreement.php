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
 * @property CarbonImmutable $created_at
 * @property User|null $by
 */
final class Agreement extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected $casts = ['document' => 'array', 'kind' => AgreementKind::class, 'created_at' => 'immutable_datetime'];

    /** @return BelongsTo<User, $this> */
    public function by(): BelongsTo
    {
        return $this->belongsTo(User::class, 'user_id');
    }
}
