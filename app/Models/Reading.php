<?php

namespace App\Models;

use App\Watching\Tables;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Facades\DB;

/**
 * Days of a client read as they were meant.
 *
 * @property int $id
 * @property int $client_id
 * @property string $from_day
 * @property string $to_day
 * @property string $names today or then
 * @property ReadingStatus $status
 * @property int $done arrivals
 * @property int $total
 * @property int $views of ads that are known
 * @property int $healed
 * @property int $unknown
 * @property string|null $problem
 * @property Client $client
 */
final class Reading extends Model
{
    use NumberedInAddresses;

    protected $guarded = [];

    protected $casts = ['status' => ReadingStatus::class];

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class);
    }

    public function tables(): Tables
    {
        return new Tables($this->id);
    }

    /** With all that it has read. */
    public function drop(): void
    {
        $this->tables()->sessions()->delete();
        $this->tables()->shares()->delete();
        DB::table('heals')->where('reading_id', $this->id)->delete();
        $this->delete();
    }
}
