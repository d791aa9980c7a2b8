<?php

namespace App\Http\Controllers;

use App\Support\Database;
use App\Support\Heartbeat;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;

/** Is all well? For those who watch the service: 200 if so, else 503 with what is not. */
final class UpController
{
    /** Seconds after which a worker that has given no sign of life is missed. */
    private const SILENT = 60;

    private const LEAST_DISK = 512 * 1024 * 1024;

    public function __invoke(Heartbeat $heartbeat): JsonResponse
    {
        $all = ['database' => self::database(), 'queue' => self::queue($heartbeat), 'disk' => self::disk()];
        $well = array_filter($all, static fn (?string $why): bool => $why !== null) === [];

        return new JsonResponse(
            array_map(static fn (?string $why): string => $why ?? 'ok', $all),
            $well ? 200 : 503,
            [
                'Cache-Control' => 'no-store',
                ...$well ? [] : ['Retry-After' => '10'],
            ],
        );
    }

    private static function database(): ?string
    {
        try {
            DB::select('select 1');

            return null;
        } catch (\PDOException $e) {
            return Database::isAway($e) ? 'can’t be reached' : 'answers with an error';
        }
    }

    private static function queue(Heartbeat $heartbeat): ?string
    {
        try {
            $age = $heartbeat->age('worker');
        } catch (\PDOException) {
            return 'not known without the database';
        }

        return match (true) {
            $age === null => 'no worker has given a sign of life yet',
            $age > self::SILENT => "no worker has given a sign of life for {$age} seconds",
            default => null,
        };
    }

    private static function disk(): ?string
    {
        $free = disk_free_space(storage_path());

        return $free !== false && $free >= self::LEAST_DISK
            ? null
            : 'less than '.(self::LEAST_DISK >> 20).' MB are free';
    }
}
