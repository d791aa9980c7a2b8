<?php

namespace App\Models;

use App\Agreements\Agreements;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Factories\HasFactory;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasManyThrough;

/**
 * @property int $id
 * @property string $name
 * @property string $slug
 * @property string $time_zone
 * @property string $currency ISO 4217
 * @property bool $needs_approval changes go out only after another person's yes
 * @property list<string>|null $hosts where test clicks may go
 * @property array<string, mixed>|null $watching how what arrives is counted; see App\Watching\Settings
 */
final class Client extends Model
{
    /** @use HasFactory<\Database\Factories\ClientFactory> */
    use HasFactory, NumberedInAddresses;

    protected $guarded = [];

    protected $casts = ['needs_approval' => 'bool', 'hosts' => 'array', 'watching' => 'array'];

    /** @return HasMany<Account, $this> */
    public function accounts(): HasMany
    {
        return $this->hasMany(Account::class);
    }

    /** @return HasMany<Connection, $this> */
    public function connections(): HasMany
    {
        return $this->hasMany(Connection::class);
    }

    /** @return HasMany<Plan, $this> */
    public function plans(): HasMany
    {
        return $this->hasMany(Plan::class);
    }

    /** @return HasMany<Reading, $this> */
    public function readings(): HasMany
    {
        return $this->hasMany(Reading::class);
    }

    /** @return HasMany<Import, $this> */
    public function imports(): HasMany
    {
        return $this->hasMany(Import::class);
    }

    /** @return HasMany<Change, $this> */
    public function changes(): HasMany
    {
        return $this->hasMany(Change::class);
    }

    /** @return HasMany<Arrival, $this> */
    public function arrivals(): HasMany
    {
        return $this->hasMany(Arrival::class);
    }

    /** @return HasMany<Trouble, $this> */
    public function troubles(): HasMany
    {
        return $this->hasMany(Trouble::class);
    }

    /** @return HasMany<ResultView, $this> */
    public function resultViews(): HasMany
    {
        return $this->hasMany(ResultView::class);
    }

    /** @return HasMany<Feed, $this> */
    public function feeds(): HasMany
    {
        return $this->hasMany(Feed::class);
    }

    /** @return HasMany<Link, $this> */
    public function links(): HasMany
    {
        return $this->hasMany(Link::class);
    }

    /** @return HasMany<ShortHost, $this> */
    public function shortHosts(): HasMany
    {
        return $this->hasMany(ShortHost::class);
    }

    /** @return HasMany<Collector, $this> */
    public function collectors(): HasMany
    {
        return $this->hasMany(Collector::class);
    }

    /** @return HasMany<OwnDialect, $this> */
    public function ownDialects(): HasMany
    {
        return $this->hasMany(OwnDialect::class);
    }

    /** @return HasMany<Tracker, $this> */
    public function trackers(): HasMany
    {
        return $this->hasMany(Tracker::class);
    }

    /** @return HasManyThrough<Node, Account, $this> */
    public function nodes(): HasManyThrough
    {
        return $this->hasManyThrough(Node::class, Account::class);
    }

    /** @return HasManyThrough<Node, Account, $this> gone ones too */
    public function nodesEver(): HasManyThrough
    {
        return $this->nodes()->withTrashed();
    }

    /** @return HasManyThrough<Finding, Account, $this> */
    public function findings(): HasManyThrough
    {
        return $this->hasManyThrough(Finding::class, Account::class);
    }

    /** @return HasManyThrough<OutsideChange, Account, $this> */
    public function outsideChanges(): HasManyThrough
    {
        return $this->hasManyThrough(OutsideChange::class, Account::class);
    }

    /** @return HasManyThrough<ChangeWrite, Change, $this> */
    public function writes(): HasManyThrough
    {
        return $this->hasManyThrough(ChangeWrite::class, Change::class);
    }

    /** @return HasMany<Filter, $this> */
    public function filters(): HasMany
    {
        return $this->hasMany(Filter::class);
    }

    /** @return HasMany<Intake, $this> */
    public function intakes(): HasMany
    {
        return $this->hasMany(Intake::class);
    }

    /** @return BelongsToMany<User, $this> */
    public function members(): BelongsToMany
    {
        return $this->belongsToMany(User::class, 'memberships')->using(Membership::class)->withPivot('role');
    }

    /** @return HasMany<Invitation, $this> */
    public function invitations(): HasMany
    {
        return $this->hasMany(Invitation::class);
    }

    /** @return HasMany<Agreement, $this> */
    public function agreements(): HasMany
    {
        return $this->hasMany(Agreement::class);
    }

    /** @return HasMany<SheetMap, $this> */
    public function sheetMaps(): HasMany
    {
        return $this->hasMany(SheetMap::class);
    }

    /** The plan that counts today; null before there is one. */
    public function plan(): ?Plan
    {
        return $this->plans()
            ->where(
                fn (Builder $of): Builder => $of
                    ->whereNull('from_day')
                    ->orWhere('from_day', '<=', Agreements::today($this)),
            )
            ->orderByDesc('revision')
            ->first();
    }

    /** The last revision of the plan, from whatever day it counts: the one that is edited. */
    public function lastPlan(): ?Plan
    {
        return $this->plans()->orderByDesc('revision')->first();
    }
}
