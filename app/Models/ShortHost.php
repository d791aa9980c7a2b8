<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A host of a client's own for short addresses.
 *
 * @property int $id
 * @property string $host
 */
final class ShortHost extends Model
{
    use NumberedInAddresses;

    protected $guarded = [];

    /** Where short addresses of a host begin; empty: those of this installation. */
    public static function address(string $host): string
    {
        return $host === '' ? (string) config('app.url') : "https://{$host}";
    }

    /** @return list<string> all hosts whose short addresses are ours, whoever's they are */
    public static function ours(): array
    {
        return [
            strtolower((string) parse_url((string) config('app.url'), PHP_URL_HOST)),
            ...self::query()->pluck('host')->all(),
        ];
    }
}
