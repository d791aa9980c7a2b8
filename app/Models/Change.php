<?php

namespace App\Models;

use App\Changes\Move;
use Illuminate\Database\Eloquent\Factories\HasFactory;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * @property int $id
 * @property int $client_id
 * @property int $account_id
 * @property string $title
 * @property int $user_id
 * @property ChangeStatus $status
 * @property string $step while it is worked out: what is being done
 * @property int $through ads that are through with that
 * @property int $draft how often it has been worked out
 * @property string $stage trial or rest
 * @property array{by?: string, part?: bool, existing?: string, carrier?: string} $policy by hand, or by a plan; part:
 *     takes back a part of another change
 * @property bool $checked since it was started last: nothing to be written has moved
 * @property list<int>|null $scope
 * @property array<string, mixed>|null $story
 * @property array<string, mixed>|null $trial
 * @property array<string, mixed>|null $verified
 * @property int $plan_revision
 * @property int|null $approved_by
 * @property int|null $applied_by
 * @property int|null $takes_back
 * @property Account $account
 * @property User $author
 * @property \Illuminate\Support\Carbon|null $created_at
 * @property int $writes_count where it was counted
 * @property string $story_writes where the story itself was not asked for: how many writes there are
 * @property string|null $story_ads the same of ads
 * @property int|null $together the first of those that were drafted together, itself for that one
 * @property string|null $problem
 * @property int $begun how often a worker has begun a step of it without getting anywhere
 */
final class Change extends Model
{
    /** @use HasFactory<\Database\Factories\ChangeFactory> */
    use HasFactory, NumberedInAddresses;

    protected $guarded = [];

    protected $dateFormat = 'Y-m-d H:i:s.v'; // what was finished before another began is told apart

    protected $attributes = ['stage' => 'rest', 'draft' => 1];

    protected $casts = [
        'status' => ChangeStatus::class,
        'policy' => 'array',
        'scope' => 'array',
        'checked' => 'bool',
        'story' => 'array',
        'trial' => 'array',
        'verified' => 'array',
        'approved_at' => 'datetime',
        'applied_at' => 'datetime',
        'finished_at' => 'datetime',
        'drafted_at' => 'datetime',
        'worker_until' => 'datetime',
    ];

    /**
     * Takes a step, but only from one of its states and as this working out of it: compare and set, in one step in the
     * database.
     *
     * @param array<string, mixed> $with what else becomes of it
     * @return bool false: it was moved by somebody else meanwhile; nothing was done
     */
    public function take(Move $move, array $with = []): bool
    {
        $values = ['status' => $move->leadsTo($this), 'updated_at' => now(), ...$with];
        $stored = array_intersect_key((new self())->forceFill($values)->getAttributes(), $values);
        $taken =
            self::query()
                ->whereKey($this->id)
                ->where('draft', $this->draft)
                ->whereIn('status', $move->beginsIn())
                ->toBase()
                ->update($stored) === 1;
        if ($taken) {
            $this->refresh();
        }

        return $taken;
    }

    /** @return list<int> the ads that its story shows */
    public function samples(): array
    {
        return array_map(static fn (array $s): int => $s['node'], $this->story['samples'] ?? []);
    }

    /** The same change, locked until the transaction ends: who reads it, decides and writes, does so alone. */
    public function locked(): self
    {
        return self::query()->whereKey($this->id)->lockForUpdate()->firstOrFail();
    }

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
    public function approver(): BelongsTo
    {
        return $this->belongsTo(User::class, 'approved_by');
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
