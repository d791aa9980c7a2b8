<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Something that is wrong in an account, with the first element that shows it.
 *
 * @property int $id
 * @property int $account_id
 * @property int|null $node_id
 * @property string|null $kind
 * @property string $name
 * @property string|null $fix_says
 * @property string|null $fix_text
 */
final class Finding extends Model
{
    use NumberedInAddresses;

    public $timestamps = false;

    protected $guarded = [];

    /** @return BelongsTo<Account, $this> */
    public function account(): BelongsTo
    {
        return $this->belongsTo(Account::class);
    }

    /** @return BelongsTo<Node, $this> */
    public function node(): BelongsTo
    {
        return $this->belongsTo(Node::class);
    }
}
