<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * How a platform's sheets name their columns.
 *
 * @property int $id
 * @property int $client_id
 * @property string $name
 * @property string $dialect
 * @property array<string, string> $columns id, name, level, template, suffix, landing, custom, result, message →
 *     heading; custom is what stands before a custom parameter's name
 */
final class Mapping extends Model
{
    use NumberedInAddresses;

    protected $guarded = [];

    protected $casts = ['columns' => 'array'];

    /** @return array<string, mixed> */
    public function told(): array
    {
        return [
            'id' => $this->id,
            'name' => $this->name,
            'dialect' => $this->dialect,
            'columns' => (object) $this->columns,
        ];
    }
}
