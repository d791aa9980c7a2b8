<?php

namespace App\Models;

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
}
