<?php

namespace App\Links;

use App\Models\Link;
use Illuminate\Support\Facades\DB;
use Vestigon\Redirector\Known;

/** Tells the redirector that what it knows is not so any more. */
final readonly class Redirects
{
    public static function folder(): string
    {
        return storage_path('links');
    }

    public function changed(Link $link): void
    {
        if ($link->code !== null) {
            $host = $link->host;
            $code = $link->code;
            DB::afterCommit(static fn () => (new Known(self::folder()))->forget($host, $code));
        }
    }

    public function hostsChanged(): void
    {
        DB::afterCommit(static fn () => (new Known(self::folder()))->forgetHosts());
    }
}
