<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property int $change_id
 * @property int $node_id
 * @property string $kind
 * @property string $name
 * @property string|null $before
 * @property string|null $after
 * @property int $position
 * @property string $stage trial, rest, or after: what the trial left is tidied up
 * @property WriteState $state
 * @property int $turn how often it has been begun anew, from 1
 * @property string|null $batch
 */
final class ChangeWrite extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected $casts = ['state' => WriteState::class];

    /** @return BelongsTo<Node, $this> gone ones too */
    public function node(): BelongsTo
    {
        return $this->belongsTo(Node::class)->withTrashed();
    }
}
