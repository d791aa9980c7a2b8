<?php

namespace Tests\Reliability;

use Illuminate\Support\Facades\DB;

/** A database that is away for a while. */
trait StopsDatabase
{
    /** Ends the tests' own MariaDB and starts it again, as it was started. */
    private function stopDatabase(int $seconds, ?\Closure $meanwhile = null): void
    {
        $state = base_path((string) getenv('VESTIGON_STATE'));
        preg_match_all('/^mariadb (\d+)$/m', (string) file_get_contents("{$state}/pids"), $pids);
        $pid = (int) end($pids[1]);
        $command = array_filter(explode("\0", (string) file_get_contents("/proc/{$pid}/cmdline")), strlen(...));
        self::assertStringContainsString('mariadbd', (string) reset($command));
        posix_kill($pid, SIGTERM);
        for (
            $i = 0;
            $i < 200
            && is_dir("/proc/{$pid}")
            && ! str_contains((string) @file_get_contents("/proc/{$pid}/status"), 'zombie');
            $i++
        ) {
            usleep(50_000);
        }
        $meanwhile === null ? sleep($seconds) : $meanwhile();
        $started = (int) trim(
            (string) shell_exec(
                'setsid '
                    .implode(' ', array_map(escapeshellarg(...), $command))
                    ." >>{$state}/log/mariadb.log 2>&1 </dev/null & echo $!",
            ),
        );
        file_put_contents("{$state}/pids", "mariadb {$started}\n", FILE_APPEND);
        for ($i = 0; $i < 200; $i++) {
            try {
                DB::reconnect();
                DB::select('select 1');

                return;
            } catch (\PDOException) {
                usleep(100_000);
            }
        }
        self::fail('the database did not come back');
    }
}
