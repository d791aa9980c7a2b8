<?php

namespace App\Console\Commands;

use App\Models\Account;
use App\Models\Node;
use App\Models\User;
use Illuminate\Console\Command;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** Times a page of 200 rows against the SQL that it needs, in one process. */
final class BenchPages extends Command
{
    protected $signature = 'bench:pages';

    protected $description = 'Measures API answers as multiples of their SQL';

    private const ROUNDS = 25;

    public function handle(Kernel $kernel): int
    {
        Auth::login(User::query()->where('email', 'mara@saltmarsh.example')->firstOrFail());
        $account = Account::query()->with('client')->orderBy('id')->firstOrFail();
        if ($account->client->plan() === null) {
            $account->client->plans()->create(['revision' => 1, 'document' => TestCase::PLAN]);
            \App\Accounts\Proof::refresh($account);
        }
        $base = "/api/v1/clients/{$account->client_id}/accounts/{$account->id}/rows";
        $missed = false;
        foreach (['200 ads found by state' => "{$base}?state=broken&limit=200", '200 rows found by name' => "{$base}?q=ferry+boat+trip&limit=200", '200 ads of a filter' => "{$base}?q=a&state=broken&limit=200"] as $what => $path) {
            [$ratio, $rows, $sql] = $this->measure($kernel, $path);
            $met = $ratio <= 3;
            $missed = $missed || (! $met && $rows === 200);
            $this->line(sprintf('%-58s %8.1f   %-14s %s', "{$what} ({$rows} rows, {$sql} queries), times its SQL", $ratio, 'at most 3', $met ? 'met' : 'MISSED'));
        }

        return $missed ? 1 : 0;
    }

    /** @return array{float, int, int} the median of whole time by SQL time, rows, queries */
    private function measure(Kernel $kernel, string $path): array
    {
        $ratios = [];
        $rows = 0;
        $sql = [];
        DB::listen(static function ($query) use (&$sql): void {
            $sql[] = $query->time;
        });
        for ($i = 0; $i < self::ROUNDS; $i++) {
            $sql = [];
            $start = hrtime(true);
            $response = $kernel->handle(Request::create($path, 'GET', server: ['HTTP_ACCEPT' => 'application/json']));
            $all = (hrtime(true) - $start) / 1e6;
            $rows = count(json_decode((string) $response->getContent(), true)['rows'] ?? throw new \RuntimeException((string) $response->getContent()));
            $ratios[] = $all / max(array_sum($sql), 0.001);
        }
        sort($ratios);

        return [$ratios[intdiv(self::ROUNDS, 2)], $rows, count($sql)];
    }
}
