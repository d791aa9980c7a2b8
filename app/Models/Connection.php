<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property int $client_id
 * @property string $dialect
 * @property string $title
 * @property array{client: string, secret: string} $credentials
 * @property string|null $only_accounts
 * @property string $reads_by api, or sheet: people bring files
 * @property string $writes_by api, or sheet: texts go out in a file
 * @property array<string, mixed>|null $shape what the files of the last import looked like
 */
final class Connection extends Model
{
    use NumberedInAddresses;

    protected $guarded = [];

    protected $hidden = ['credentials'];

    protected $casts = ['credentials' => 'encrypted:array', 'imported_at' => 'datetime', 'shape' => 'array'];

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class);
    }
}
