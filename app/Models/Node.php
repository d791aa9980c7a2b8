<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
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

    /**
     * Along the index: of an account that has just grown the server knows too little to choose it by itself, and reads
     * all of the account for each few numbers.
     *
     * @param Builder<Node> $nodes
     * @param list<string> $numbers the platform's
     */
    public function scopeNumbered(Builder $nodes, int $account, string $level, array $numbers): void
    {
        $nodes
            ->forceIndex('nodes_account_id_level_external_id_unique')
            ->where(['nodes.account_id' => $account, 'nodes.level' => $level])
            ->whereIn('nodes.external_id', $numbers);
    }

    /** @return BelongsTo<Account, $this> */
    public function account(): BelongsTo
    {
        return $this->belongsTo(Account::class);
    }
}
