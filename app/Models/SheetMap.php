<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * What the columns of a platform's exports mean, as a client's people have confirmed it.
 *
 * @property int $id
 * @property string $dialect
 * @property string $title
 * @property array<string, mixed> $document vestigon.sheet-map/1
 */
final class SheetMap extends Model
{
    use NumberedInAddresses;

    protected $guarded = [];

    protected $casts = ['document' => 'array'];
}
