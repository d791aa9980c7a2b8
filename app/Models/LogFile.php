<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A file that somebody has put in for a site: a web server's log, or a sheet of orders.
 *
 * @property int $id
 * @property Collector $collector
 * @property string $name
 * @property string $kind log or conversions
 * @property int $bytes
 * @property \Illuminate\Support\Carbon $came_at
 * @property string $state waiting, read or failed
 * @property int $lines
 * @property int $taken
 * @property array<string, int>|null $left_out why → lines
 * @property string|null $problem
 */
final class LogFile extends Model
{
    use NumberedInAddresses;

    public $timestamps = false;

    protected $guarded = [];

    protected $casts = ['came_at' => 'datetime', 'left_out' => 'array'];

    /** @return BelongsTo<Collector, $this> */
    public function collector(): BelongsTo
    {
        return $this->belongsTo(Collector::class);
    }

    /** Where it is until it has been read. */
    public function path(): string
    {
        return storage_path("logs-in/{$this->id}");
    }
}
