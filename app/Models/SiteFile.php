<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Facades\File;

/**
 * A file that somebody has put in for a site: a web server's log, or a sheet of orders or page views.
 *
 * @property int $id
 * @property Collector $collector
 * @property string $name
 * @property string $kind log or events
 * @property int $bytes
 * @property \Illuminate\Support\Carbon $came_at
 * @property SiteFileState $state
 * @property int $lines
 * @property int $taken
 * @property array<string, int>|null $left_out why → lines
 * @property string|null $problem
 * @property list<array<string, mixed>>|null $map of a sheet: a table each, as MappedTable has it
 */
final class SiteFile extends Model
{
    use NumberedInAddresses;

    public $timestamps = false;

    protected $guarded = [];

    protected $casts = [
        'came_at' => 'datetime',
        'state' => SiteFileState::class,
        'left_out' => 'array',
        'map' => 'array',
    ];

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

    /** From one state to another, unless somebody was faster. */
    public function passes(SiteFileState $from, SiteFileState $to, ?string $problem = null): bool
    {
        return self::query()
            ->where(['id' => $this->id, 'state' => $from])
            ->update(['state' => $to, 'problem' => $problem]) === 1;
    }

    /** It has been read, or is not wanted. */
    public function letGo(): void
    {
        File::delete(File::glob("{$this->path()}*"));
    }
}
