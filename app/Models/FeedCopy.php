<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A product list as it came, unpacked and in UTF-8.
 *
 * @property int $id
 * @property int $feed_id
 * @property Feed $feed
 * @property \Illuminate\Support\Carbon $came_at
 * @property int $bytes
 * @property int|null $items
 * @property string $digest
 * @property string $state kept, held or past
 * @property string|null $why it is held
 */
final class FeedCopy extends Model
{
    use NumberedInAddresses;

    public $timestamps = false;

    protected $guarded = [];

    protected $casts = ['came_at' => 'datetime'];

    /** @return BelongsTo<Feed, $this> */
    public function feed(): BelongsTo
    {
        return $this->belongsTo(Feed::class)->withTrashed();
    }

    /** Is its file there? It is none of what a backup keeps. */
    public function isThere(): bool
    {
        return is_file($this->path());
    }

    public function path(): string
    {
        return "{$this->feed->folder()}/{$this->id}";
    }
}
