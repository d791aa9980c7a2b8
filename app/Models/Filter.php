<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A choice of elements that a person keeps for later.
 *
 * @property int $id
 * @property int $client_id
 * @property int $account_id
 * @property string $name
 * @property array{nodes?: list<int>, q?: string, state?: string} $filter
 */
final class Filter extends Model
{
    use NumberedInAddresses;

    protected $guarded = [];

    protected $casts = ['filter' => 'array'];

    /** @return array<string, mixed> */
    public function told(): array
    {
        return [
            'id' => $this->id,
            'name' => $this->name,
            'account' => $this->account_id,
            'filter' => (object) $this->filter,
        ];
    }
}
