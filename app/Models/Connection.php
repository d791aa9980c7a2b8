<?php

namespace App\Models;

use Carbon\CarbonImmutable;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property int $client_id
 * @property string $dialect
 * @property string $title
 * @property array{client?: string, secret?: string, token?: string} $credentials
 * @property string|null $only_accounts
 * @property string $reads_by api, or sheet: people bring files
 * @property string $writes_by api, or sheet: texts go out in a file
 * @property string|null $address of an adapter; null: the platform's own
 * @property bool $clicks it makes clicks for tests
 * @property int|null $every_hours null: only by hand
 * @property int|null $quiet_from hour of the client's day from which no import begins by itself
 * @property int|null $quiet_until
 * @property \Illuminate\Support\Carbon|null $next_at
 * @property Client $client
 * @property array<string, mixed>|null $shape what the files of the last import looked like
 */
final class Connection extends Model
{
    use NumberedInAddresses;

    /** How often an import can begin by itself: hourly to weekly. */
    public const EVERY_HOURS = [1, 3, 6, 12, 24, 168];

    protected $guarded = [];

    protected $hidden = ['credentials'];

    protected $casts = [
        'credentials' => 'encrypted:array',
        'imported_at' => 'datetime',
        'next_at' => 'datetime',
        'shape' => 'array',
        'clicks' => 'bool',
    ];

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class);
    }

    /** When the next import begins by itself, after one that begins now; null: none does. */
    public function next(CarbonImmutable $now): ?CarbonImmutable
    {
        if ($this->every_hours === null) {
            return null;
        }
        $next = $now->addHours($this->every_hours);
        if ($this->quiet_from === null || $this->quiet_until === null) {
            return $next;
        }
        $there = $next->setTimezone($this->client->time_zone);
        $isQuiet = $this->quiet_from < $this->quiet_until
            ? $there->hour >= $this->quiet_from && $there->hour < $this->quiet_until
            : $there->hour >= $this->quiet_from || $there->hour < $this->quiet_until;
        if (! $isQuiet) {
            return $next;
        }
        $ends = $there->setTime($this->quiet_until, 0);

        return ($ends->lessThanOrEqualTo($there) ? $ends->addDay() : $ends)->utc();
    }
}
