<?php

namespace Tests\Bench;

use App\Accounts\Importer;
use App\Connectors\StagedConnector;
use App\Dialects\Dialects;
use App\Intakes\Looks;
use App\Intakes\Reading;
use App\Models\Client;
use App\Models\Connection;
use App\Models\ImportStatus;
use App\Models\Intake;
use App\Models\IntakeStatus;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Vestigon\Core\Sheet\SheetMap;

/** Times accounts that come as sheets against LOAD DATA of the same rows into the same tables. */
final class BenchSheets extends Command
{
    use TellsFigures;

    protected $signature = 'bench:sheets {folder : where the database’s server may read and write} {ads=1000000}';

    protected $description = 'Measures accounts that come as sheets';

    private const COLUMNS = [
        'Campaign ID' => 'campaign.id',
        'Campaign' => 'campaign.name',
        'Ad group ID' => 'group.id',
        'Ad group' => 'group.name',
        'Ad ID' => 'id',
        'Ad' => 'name',
        'Page' => 'slot.landing',
        'Tracking' => 'slot.template',
        'Query' => 'slot.suffix',
    ];

    public function handle(Dialects $dialects): int
    {
        $ads = (int) $this->argument('ads');
        $client = Client::query()->create(['name' => 'Sheets', 'slug' => 'sheets-'.bin2hex(random_bytes(3))]);
        $intake = $this->intake($client, $ads);
        $this->figure(
            'seconds until '.number_format($intake->files[0]->bytes >> 20).' MB are looked at',
            self::time(static fn () => $intake->update(['tables' => Looks::of($intake)])),
            1,
        );
        $first = $this->broughtIn($intake, $dialects);
        $account = $intake->refresh()->account_id;
        $load = $this->loaded((int) $account);
        $this->figure(number_format($ads).' ads from CSV, times LOAD DATA of the same rows', $first / $load, 4);
        $next = $this->intake($client, $ads, (int) $account);
        $next->update(['tables' => Looks::of($next)]);
        $again = $this->broughtIn($next, $dialects);
        $this->figure('the same file again, times the first', $again / $first, 0.5);
        $this->figure('the same, MB of memory', memory_get_peak_usage() / 1e6, 256);

        return $this->allMet();
    }

    private function intake(Client $client, int $ads, ?int $account = null): Intake
    {
        $intake = $client
            ->intakes()
            ->create([
                'dialect' => 'northquay-search',
                'account_id' => $account,
                'number' => 'sheets',
                'name' => 'Sheets',
                'status' => IntakeStatus::Reading,
                'map' => [
                    'format' => SheetMap::FORMAT,
                    'dialect' => 'northquay-search',
                    'title' => 'x',
                    'tables' => [
                        [
                            'title' => 'ads',
                            'level' => 'ad',
                            'columns' => array_map(
                                static fn (string $heading, string $means): array => [
                                    'heading' => $heading,
                                    'means' => $means,
                                ],
                                array_keys(self::COLUMNS),
                                self::COLUMNS,
                            ),
                        ],
                    ],
                ],
            ]);
        $file = $intake->files()->create(['name' => 'ads.csv', 'bytes' => 0]);
        File::ensureDirectoryExists($intake->folder());
        $out = fopen($file->setRelation('intake', $intake)->path(), 'wb') ?: throw new \RuntimeException('no file');
        fputcsv($out, array_keys(self::COLUMNS), escape: '');
        for ($i = 0; $i < $ads; $i++) {
            $group = intdiv($i, 20);
            $campaign = intdiv($i, 1000);
            fputcsv(
                $out,
                [
                    7_000_000 + $campaign,
                    "Campaign {$campaign}",
                    8_000_000 + $group,
                    "Group {$group} of {$campaign}",
                    90_000_000 + $i,
                    "Ad number {$i}",
                    "https://velmar.example/page/{$i}?colour=blue",
                    '',
                    $i % 3 === 0 ? 'utm_source=northquay&utm_medium=cpc' : '',
                ],
                escape: '',
            );
        }
        fclose($out);
        $bytes = (int) filesize($file->path());
        $file->update(['bytes' => $bytes, 'received' => $bytes]);

        return $intake->refresh()->load('files');
    }

    /** @return float seconds for reading every row and importing what they make, without the proof */
    private function broughtIn(Intake $intake, Dialects $dialects): float
    {
        $dialect = $dialects->of($intake->client_id, $intake->dialect);
        $connection = Connection::query()->firstOrCreate(
            ['client_id' => $intake->client_id],
            [
                'dialect' => $dialect->id,
                'title' => 'Sheets',
                'credentials' => [],
                'reads_by' => 'sheet',
                'writes_by' => 'sheet',
            ],
        );
        $import = $intake->client->imports()->create([
            'connection_id' => $connection->id,
            'status' => ImportStatus::Queued,
        ]);
        $intake->update(['status' => IntakeStatus::Reading, 'import_id' => $import->id]);

        return self::time(function () use ($intake, $dialect, $connection, $import): void {
            $read = self::time(
                static fn () => (new Reading($intake->load('account'), $dialect))->run()
                    ?: throw new \RuntimeException('it was not read to its end'),
            );
            $connector = new StagedConnector($intake->refresh(), $dialect);
            $accounts = (new Importer($connector, $connection, $dialect, $import))->run();
            $intake->update(['account_id' => $accounts[0]->id]);
            $this->line(sprintf('  of that, reading every row took %.1f s', $read));
        });
    }

    /** @return float seconds for LOAD DATA of the account's rows into tables like those that hold them */
    private function loaded(int $account): float
    {
        $owner = DB::connection('owner');
        $seconds = 0.0;
        foreach (
            [
                'nodes' => "account_id = {$account}",
                'texts' => "node_id in (select id from nodes where account_id = {$account})",
                'name_words' => "account_id = {$account}",
            ] as $table => $where
        ) {
            $file = $this->argument('folder')."/{$table}-".bin2hex(random_bytes(3)).'.tsv';
            $columns = collect($owner->select("show columns from {$table}"))
                ->reject(static fn (object $c): bool => str_contains($c->Extra, 'GENERATED'))
                ->map(static fn (object $c): string => "`{$c->Field}`")
                ->implode(', ');
            $owner->unprepared("create table bench_{$table} like {$table}");
            try {
                $owner->unprepared(
                    "select {$columns} into outfile '{$file}' character set utf8mb4 from {$table} where {$where}",
                );
                $seconds += self::time(static fn () => $owner->unprepared(
                    "load data infile '{$file}' into table bench_{$table} character set utf8mb4 ({$columns})",
                ));
            } finally {
                $owner->unprepared("drop table bench_{$table}");
                File::delete($file);
            }
        }

        return $seconds;
    }

    private static function time(\Closure $work): float
    {
        $start = hrtime(true);
        $work();

        return (hrtime(true) - $start) / 1e9;
    }
}
