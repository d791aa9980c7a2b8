<?php

namespace App\Support;

use Illuminate\Support\Facades\DB;

/** Signs of life of workers, for those who ask whether all is well. One for a process. */
final class Heartbeat
{
    /** Seconds between two signs of one process. */
    private const APART = 5.0;

    /** @var array<string, float> what this process has signed, and when */
    private array $last = [];

    public function beat(string $what): void
    {
        $now = microtime(true);
        if ($now - ($this->last[$what] ?? 0.0) < self::APART) {
            return;
        }
        $this->last[$what] = $now;
        DB::statement(
            'insert into heartbeats (what, at) values (?, now(3)) on duplicate key update at = now(3)',
            [$what],
        );
    }

    /** @return int|null seconds since the last sign; null: there was none */
    public function age(string $what): ?int
    {
        $age = DB::scalar('select timestampdiff(second, at, now(3)) from heartbeats where what = ?', [$what]);

        return is_numeric($age) ? (int) $age : null;
    }
}
