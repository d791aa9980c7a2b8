<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Something that an import found to be otherwise than it was known to be, and that we have not written.
 *
 * @property int $id
 * @property int $account_id
 * @property int $node_id
 * @property string $kind of a text; or name, type, standing, place, new, gone, back
 * @property string $name of a custom parameter or setting
 * @property string|null $before
 * @property string|null $after
 * @property bool $judged
 * @property int $breaks ads that are not proven any more because of it
 * @property int $mends ads that are proven again because of it
 * @property OutsideState $state
 * @property int|null $change_id
 * @property \Illuminate\Support\Carbon $found_at
 * @property \Illuminate\Support\Carbon|null $decided_at
 * @property Node $node
 * @property User|null $decider
 */
final class OutsideChange extends Model
{
    use NumberedInAddresses;

    /** Kinds that a change of ours can put back: texts, and names. */
    public const TEXTS = ['template', 'suffix', 'landing', 'custom', 'setting', 'name'];

    public const NONE = ['open' => 0, 'breaking' => 0, 'breaks' => 0];

    public $timestamps = false;

    protected $guarded = [];

    protected $dateFormat = 'Y-m-d H:i:s.v';

    protected $casts = [
        'state' => OutsideState::class,
        'judged' => 'bool',
        'found_at' => 'datetime',
        'decided_at' => 'datetime',
    ];

    /** @return BelongsTo<Account, $this> */
    public function account(): BelongsTo
    {
        return $this->belongsTo(Account::class);
    }

    /** @return BelongsTo<Node, $this> gone ones too */
    public function node(): BelongsTo
    {
        return $this->belongsTo(Node::class)->withTrashed();
    }

    /** @return BelongsTo<Change, $this> that puts it back */
    public function change(): BelongsTo
    {
        return $this->belongsTo(Change::class);
    }

    /** @return BelongsTo<User, $this> */
    public function decider(): BelongsTo
    {
        return $this->belongsTo(User::class, 'user_id');
    }

    /**
     * @param list<int> $accounts
     * @return array<int, array{open: int, breaking: int, breaks: int}> by account: how many wait for a decision, how
     *     many of those break a proof, and of how many ads at most
     */
    public static function counts(array $accounts): array
    {
        $counts = [];
        foreach (
            self::query()
                ->whereIn('account_id', $accounts)
                ->undecided()
                ->toBase()
                ->groupBy('account_id')
                ->selectRaw('account_id, count(*) open, sum(breaks > 0) breaking, sum(breaks) breaks')
                ->get() as $row
        ) {
            $counts[$row->account_id] = array_map(intval(...), array_intersect_key((array) $row, self::NONE));
        }

        return $counts;
    }

    /**
     * Nobody has decided yet, or what was to put it back has been dropped.
     *
     * @param Builder<self> $of
     */
    public function scopeUndecided(Builder $of): void
    {
        $of->where(
            static fn (Builder $q) => $q
                ->where('state', OutsideState::Open)
                ->orWhere(
                    static fn (Builder $w) => $w
                        ->where('state', OutsideState::Returned)
                        ->whereHas('change', static fn ($c) => $c->where('status', ChangeStatus::Dropped)),
                ),
        );
    }
}
