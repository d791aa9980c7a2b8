<?php

namespace App\Models;

use App\Troubles\TroubleKind;
use Carbon\CarbonImmutable;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Something that is wrong in an account, by its cause.
 *
 * @property int $id
 * @property int $client_id
 * @property int|null $account_id null: it is of a list, or of links that people place themselves
 * @property int|null $feed_id
 * @property TroubleKind $kind
 * @property string $hash
 * @property string $what
 * @property array{code: string, name: string, key: string, values: list<string>}|null $about what arrives wrong
 * @property int|null $node_id
 * @property int $ads
 * @property int $clicks
 * @property int $cost
 * @property CarbonImmutable $first_at
 * @property CarbonImmutable|null $returned_at
 * @property CarbonImmutable|null $mended_at
 * @property string|null $accepted_until YYYY-MM-DD, in the client's time zone
 * @property string|null $accepted_why
 * @property User|null $acceptedBy
 * @property Account|null $account
 * @property Feed|null $feed
 */
final class Trouble extends Model
{
    use NumberedInAddresses;

    public $timestamps = false;

    protected $guarded = [];

    protected $casts = [
        'kind' => TroubleKind::class,
        'about' => 'array',
        'first_at' => 'immutable_datetime',
        'returned_at' => 'immutable_datetime',
        'mended_at' => 'immutable_datetime',
    ];

    /** Where it is, in words. */
    public function place(): string
    {
        return $this->account->name
            ?? $this->feed->name
            ?? ($this->kind === TroubleKind::Arrives ? 'of no ad that is known' : 'Links');
    }

    /** @return BelongsTo<Feed, $this> */
    public function feed(): BelongsTo
    {
        return $this->belongsTo(Feed::class)->withTrashed();
    }

    /** @return BelongsTo<Account, $this> */
    public function account(): BelongsTo
    {
        return $this->belongsTo(Account::class);
    }

    /** @return BelongsTo<User, $this> */
    public function acceptedBy(): BelongsTo
    {
        return $this->belongsTo(User::class, 'accepted_by');
    }
}
