<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Rules for a product list's links, worked out over all its items: to be applied or discarded.
 *
 * @property int $id
 * @property int $feed_id
 * @property Feed $feed
 * @property int $copy_id
 * @property list<mixed> $rules as in vestigon.feed/1
 * @property array<string, mixed> $reads
 * @property string $why
 * @property string $state working, ready, failed, applied or discarded
 * @property array<string, mixed>|null $result see App\Feeds\Tally
 * @property string|null $problem
 * @property int|null $made_by
 * @property \Illuminate\Support\Carbon $made_at
 * @property \Illuminate\Support\Carbon|null $decided_at
 */
final class FeedDraft extends Model
{
    use NumberedInAddresses;

    public $timestamps = false;

    protected $guarded = [];

    protected $casts = [
        'rules' => 'array',
        'reads' => 'array',
        'result' => 'array',
        'made_at' => 'datetime',
        'decided_at' => 'datetime',
    ];

    /** @return BelongsTo<Feed, $this> */
    public function feed(): BelongsTo
    {
        return $this->belongsTo(Feed::class);
    }

    /** @return BelongsTo<User, $this> */
    public function maker(): BelongsTo
    {
        return $this->belongsTo(User::class, 'made_by');
    }

    /** Where a client wants another person's yes before anything goes out, nobody applies a draft of their own. */
    public function mayBeAppliedBy(User $user, Client $client): bool
    {
        return ! $client->needs_approval || $this->made_by !== $user->id;
    }

    /** @return BelongsTo<User, $this> */
    public function decider(): BelongsTo
    {
        return $this->belongsTo(User::class, 'decided_by');
    }
}
