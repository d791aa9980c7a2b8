<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A question to results that a person keeps, for themselves or for all of a client.
 *
 * @property int $id
 * @property int $client_id
 * @property int $user_id
 * @property string $name
 * @property array<string, mixed> $query
 * @property bool $is_shared
 */
final class ResultView extends Model
{
    use NumberedInAddresses;

    protected $guarded = [];

    protected $casts = ['query' => 'array', 'is_shared' => 'bool'];

    /** @return array<string, mixed> */
    public function told(int $user): array
    {
        return [
            'id' => $this->id,
            'name' => $this->name,
            'query' => (object) $this->query,
            'isShared' => $this->is_shared,
            'isMine' => $this->user_id === $user,
        ];
    }
}
