<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * That a link leads elsewhere since then.
 *
 * @property int $id
 * @property \Illuminate\Support\Carbon $at
 * @property string $before
 * @property string $after
 * @property string $why
 */
final class LinkMove extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected $casts = ['at' => 'datetime'];

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
