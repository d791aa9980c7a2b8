<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * @property int $id
 * @property int $client_id
 * @property int $account_id
 * @property string $title
 * @property string $status drafting, ready, applying, done, partly, stopped, failed
 * @property array{by?: string, existing?: string, carrier?: string} $policy by hand, or by a plan
 * @property array<string, mixed>|null $story
 * @property int $plan_revision
 * @property int|null $applied_by
 * @property string|null $problem
 */
final class Change extends Model
{
    public const OPEN = ['drafting', 'applying'];

    protected $guarded = [];

    protected $casts = ['policy' => 'array', 'story' => 'array', 'applied_at' => 'datetime', 'finished_at' => 'datetime'];

    /** @return BelongsTo<Account, $this> */
    public function account(): BelongsTo
    {
        return $this->belongsTo(Account::class);
    }

    /** @return BelongsTo<User, $this> */
    public function author(): BelongsTo
    {
        return $this->belongsTo(User::class, 'user_id');
    }

    /** @return BelongsTo<User, $this> */
    public function applier(): BelongsTo
    {
        return $this->belongsTo(User::class, 'applied_by');
    }

    /** @return HasMany<ChangeWrite, $this> */
    public function writes(): HasMany
    {
        return $this->hasMany(ChangeWrite::class)->orderBy('position');
    }
}
