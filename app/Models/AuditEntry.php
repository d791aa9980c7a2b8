<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Casts\Attribute;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Who signed in and from where, who changed roles and rules. It is only ever added to.
 *
 * @property \Illuminate\Support\Carbon $at
 * @property string $what
 * @property int|null $user_id who did it
 * @property int|null $client_id
 * @property string|null $address
 * @property array<string, mixed> $about
 * @property User|null $user
 */
final class AuditEntry extends Model
{
    private const SHOWN = 50;

    public $timestamps = false;

    protected $table = 'audit';

    protected $guarded = [];

    protected $dateFormat = 'Y-m-d H:i:s.v';

    protected $casts = ['at' => 'datetime'];

    /** @return Attribute<array<string, mixed>, array<string, mixed>> what it is about, whatever bytes are in it */
    protected function about(): Attribute
    {
        return Attribute::make(
            get: static fn (string $json): array => json_decode($json, true),
            set: static fn (array $about): string => json_encode(
                (object) $about,
                JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE,
            ),
        );
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @param Builder<self> $query */
    public function scopeLately(Builder $query): void
    {
        $query->with('user:id,name')->latest('id')->limit(self::SHOWN);
    }
}
