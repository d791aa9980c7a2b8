<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Vestigon\Core\Trace\Hop;

/**
 * A click tracker that clicks may pass on their way.
 *
 * @property int $id
 * @property int $client_id
 * @property string $host
 * @property string $parameter that holds the destination
 * @property bool $forwards its other parameters travel on
 * @property list<array{key: string, text: string}> $adds
 * @property int $revision
 * @property Client $client
 * @property int $count_days
 * @property string|null $count_until
 */
final class Tracker extends Model
{
    use NumberedInAddresses;

    protected $guarded = [];

    protected $attributes = ['revision' => 1];

    protected $casts = ['forwards' => 'bool', 'adds' => 'array'];

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class);
    }

    /**
     * With how many days' counts are known of it, and until when.
     *
     * @param Builder<Tracker> $query
     */
    public function scopeCounted(Builder $query): void
    {
        $query
            ->select('trackers.*')
            ->selectRaw('(select count(*) from hop_counts c where c.tracker_id = trackers.id) count_days')
            ->selectRaw('(select max(day) from hop_counts c where c.tracker_id = trackers.id) count_until');
    }

    public function hop(): Hop
    {
        return new Hop(
            $this->host,
            $this->parameter,
            $this->forwards,
            array_map(static fn (array $a): array => [$a['key'], $a['text']], $this->adds),
        );
    }
}
