<?php

namespace App\Watching;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** Where sessions and what counts for them are kept: as they arrived, or as they were meant, in a reading. */
final readonly class Tables
{
    public function __construct(public ?int $reading = null) {}

    public function sessions(): Builder
    {
        return $this->of('site_sessions', 'meant_sessions');
    }

    public function shares(): Builder
    {
        return $this->of('shares', 'meant_shares');
    }

    /** @return array{}|array{reading_id: int} what each row says of it */
    public function mark(): array
    {
        return $this->reading === null ? [] : ['reading_id' => $this->reading];
    }

    private function of(string $arrived, string $meant): Builder
    {
        return $this->reading === null
            ? DB::table($arrived)
            : DB::table($meant)->where('reading_id', $this->reading);
    }
}
