<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\SoftDeletes;

/**
 * An element of an account. One that the platform does not have any more is kept as gone, with all it has, out of sight
 * of queries that don't ask for it.
 *
 * @property int $id
 * @property int $account_id
 * @property int|null $parent_id
 * @property string $level
 * @property string $external_id
 * @property string $name
 * @property string|null $published_name
 * @property string|null $type
 * @property array<string, string>|null $facts
 * @property list<array{text: string, match: string}>|null $keywords
 * @property int $version
 * @property bool $is_ad
 * @property string $standing live, paused, review or rejected
 * @property string|null $state
 * @property string|null $fault
 * @property string $fault_keys
 * @property int $ads below it
 * @property \Illuminate\Support\Carbon|null $gone_at since when the platform does not have it
 */
final class Node extends Model
{
    use NumberedInAddresses, SoftDeletes;

    public const DELETED_AT = 'gone_at';

    public $timestamps = false;

    protected $guarded = [];

    protected $casts = ['facts' => 'array', 'keywords' => 'array', 'is_ad' => 'bool', 'gone_at' => 'datetime'];

    /** @return BelongsTo<Account, $this> */
    public function account(): BelongsTo
    {
        return $this->belongsTo(Account::class);
    }
}
