<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A platform that a client's people have described themselves.
 *
 * @property int $client_id
 * @property string $name the document's id
 * @property int $revision
 * @property array<string, mixed> $document
 */
final class OwnDialect extends Model
{
    protected $guarded = [];

    protected $casts = ['document' => 'array'];
}
