<?php

namespace App\Support;

use Illuminate\Database\LostConnectionDetector;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\Log;

/** What we make of trouble with the database. */
final class Database
{
    /** MariaDB's and the client's codes for: no connection, too many connections, shutting down, gone away, lost. */
    private const AWAY = [1040, 1053, 1203, 2002, 2003, 2006, 2013];

    public static function isAway(\Throwable $e): bool
    {
        $code = $e instanceof \PDOException ? (int) ($e->errorInfo[1] ?? $e->getCode()) : 0;

        return in_array($code, self::AWAY, true)
            || app(LostConnectionDetector::class)->causedByLostConnection($e);
    }

    /** Logs what went wrong and where, without the values that were to be stored. */
    public static function report(QueryException $e): void
    {
        $said = $e->getPrevious()?->getMessage() ?? 'no reason given';
        Log::error('A query failed: '.preg_replace("/'(?:[^'\\\\]|\\\\.)*'/", "'…'", $said), [
            'sql' => $e->getSql(),
            'at' => $e->getTraceAsString(),
        ]);
    }
}
