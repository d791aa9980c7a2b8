<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Vestigon\Core\Watch\Event;
use Vestigon\Core\Watch\EventKind;

/**
 * @property int $id
 * @property int $collector_id
 * @property EventKind $kind
 * @property string $url
 * @property string $referrer
 * @property string|null $visitor a random word of the site's own
 * @property Client $client
 * @property \Illuminate\Support\Carbon $at
 */
final class Arrival extends Model
{
    use NumberedInAddresses;

    public $timestamps = false;

    protected $guarded = [];

    protected $casts = ['at' => 'datetime', 'kind' => EventKind::class];

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class);
    }

    /** @return BelongsTo<Collector, $this> */
    public function collector(): BelongsTo
    {
        return $this->belongsTo(Collector::class);
    }

    /** As the core reads it. */
    public function event(): Event
    {
        return new Event(
            (string) $this->id,
            (string) $this->collector_id,
            (int) $this->at->getPreciseTimestamp(3),
            $this->kind,
            $this->url,
            $this->referrer,
            $this->visitor,
        );
    }

    /** @return BelongsTo<Node, $this> gone ones too */
    public function node(): BelongsTo
    {
        return $this->belongsTo(Node::class)->withTrashed();
    }
}
