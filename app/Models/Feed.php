<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\SoftDeletes;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Feed\Feed as CoreFeed;
use Vestigon\Core\Feed\FeedReader;

/**
 * A shop's product list: fetched or put in, its links given parameters by rules, handed on at an address of ours.
 *
 * @property int $id
 * @property int $client_id
 * @property Client $client
 * @property string $name
 * @property string|null $address
 * @property int|null $every_minutes
 * @property array<string, mixed>|null $reads as in vestigon.feed/1
 * @property string $secret
 * @property string $call
 * @property int|null $kept_id
 * @property int|null $applied_id
 * @property string|null $etag
 * @property string|null $modified
 * @property \Illuminate\Support\Carbon|null $fetched_at
 * @property \Illuminate\Support\Carbon|null $next_at
 * @property string|null $problem
 * @property string|null $out_digest
 * @property \Illuminate\Support\Carbon|null $out_at
 * @property int|null $out_items
 * @property int|null $out_changed
 * @property list<array{code: string, says: string, column: string|null, items: int}>|null $out_problems
 * @property string|null $ending
 */
final class Feed extends Model
{
    use NumberedInAddresses, SoftDeletes;

    public const DELETED_AT = 'gone_at';

    protected $guarded = [];

    protected $casts = [
        'reads' => 'array',
        'fetched_at' => 'datetime',
        'next_at' => 'datetime',
        'out_at' => 'datetime',
        'out_problems' => 'array',
    ];

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class);
    }

    /** @return HasMany<FeedCopy, $this> */
    public function copies(): HasMany
    {
        return $this->hasMany(FeedCopy::class);
    }

    /** @return HasMany<FeedDraft, $this> */
    public function drafts(): HasMany
    {
        return $this->hasMany(FeedDraft::class);
    }

    /** @return BelongsTo<FeedCopy, $this> */
    public function kept(): BelongsTo
    {
        return $this->belongsTo(FeedCopy::class, 'kept_id');
    }

    /** @return BelongsTo<FeedDraft, $this> */
    public function applied(): BelongsTo
    {
        return $this->belongsTo(FeedDraft::class, 'applied_id');
    }

    /** A newer list than the one that counts, which somebody has to take first. */
    public function held(): ?FeedCopy
    {
        return $this->copies()
            ->where('state', 'held')
            ->where('id', '>', $this->kept_id ?? 0)
            ->latest('id')
            ->first();
    }

    /** A list can't be taken: it is said why, and the last good one stays. */
    public function refuse(UnusableInput $why): void
    {
        $this->refresh()->update(['problem' => mb_substr(ucfirst(ltrim($why->getMessage(), ': ')), 0, 499).'.']);
    }

    /** Where its files are. */
    public function folder(): string
    {
        return storage_path("feeds/{$this->id}");
    }

    public function outPath(): string
    {
        return "{$this->folder()}/out";
    }

    public function outAddress(): ?string
    {
        return $this->ending === null ? null : config('app.url')."/feeds/{$this->secret}.{$this->ending}";
    }

    /**
     * @param list<mixed> $rules
     * @param array<string, mixed> $reads
     *
     * @throws UnusableInput
     */
    public function core(array $rules, array $reads): CoreFeed
    {
        return FeedReader::read(
            new Cursor(['format' => FeedReader::FORMAT, 'title' => $this->name, 'reads' => $reads, 'rules' => $rules]),
        );
    }
}
