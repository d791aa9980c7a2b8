<?php

namespace App\Connectors;

use Illuminate\Support\Facades\DB;

/**
 * Keeps all our workers together under a platform's limit of requests in a second, for reading or for writing: each
 * request gets a time of its own, evenly apart. (The generic cell rate algorithm, ITU-T I.371, without bursts.) The
 * clock is the database's.
 */
final readonly class Pace
{
    public function __construct(private string $what, private int $perSecond) {}

    public function wait(): void
    {
        $apart = intdiv(1_000_000, $this->perSecond);
        $row = DB::selectOne(
            'insert into paces (what, next) values (?, now(6) + interval ? microsecond) on duplicate key update next '
                .'= greatest(next, now(6)) + interval ? microsecond returning timestampdiff(microsecond, now(6), '
                .'next) as after',
            [$this->what, $apart, $apart],
            false,
        );
        usleep(max(0, $row->after - $apart));
    }
}
