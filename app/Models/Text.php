<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * A slot's text, a custom parameter's value, or what the account switches, for the time in which it was live.
 *
 * @property int $node_id
 * @property string $kind
 * @property string $name
 * @property string $text
 */
final class Text extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected $casts = ['since' => 'datetime', 'until' => 'datetime'];

    /**
     * Along the index: where many texts have just come, the server knows too little to choose it by itself, and reads
     * all texts for each few elements.
     *
     * @param Builder<Text> $texts
     * @param list<int> $nodes
     */
    public function scopeOfNodes(Builder $texts, array $nodes): void
    {
        $texts->forceIndex('texts_node_id_until_index')->whereIntegerInRaw('texts.node_id', $nodes);
    }
}
