<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property string $url
 * @property \Illuminate\Support\Carbon $at
 */
final class Arrival extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected $casts = ['at' => 'datetime'];

    /** @return BelongsTo<Node, $this> gone ones too */
    public function node(): BelongsTo
    {
        return $this->belongsTo(Node::class)->withTrashed();
    }
}
