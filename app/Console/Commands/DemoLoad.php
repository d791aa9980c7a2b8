<?php

namespace App\Console\Commands;

use App\Jobs\ImportAccounts;
use App\Models\Client;
use App\Models\Collector;
use App\Models\Connection;
use App\Models\User;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

final class DemoLoad extends Command
{
    protected $signature = 'demo:load';

    protected $description = 'Loads the demo once: an agency, its people and clients';

    public function handle(): void
    {
        if (User::query()->exists()) {
            return;
        }
        DB::transaction(static function (): void {
            $velmar = Client::query()->create(['name' => 'Velmar Ferries', 'slug' => 'velmar']);
            $ninefold = Client::query()->create(['name' => 'Ninefold Museum of Clocks', 'slug' => 'ninefold']);
            $people = [
                ['Mara Tidewell', 'mara@saltmarsh.example', [[$velmar, 'owner'], [$ninefold, 'owner']]],
                ['Ivo Brandling', 'ivo@saltmarsh.example', [[$velmar, 'editor']]],
                ['Odile Ferrant', 'odile@velmar.example', [[$velmar, 'reviewer']]],
                ['Runa Ankerhus', 'runa@ninefold.example', [[$ninefold, 'viewer']]],
            ];
            foreach ($people as [$name, $email, $clients]) {
                $user = User::query()->create(['name' => $name, 'email' => $email, 'password' => 'tide-table']);
                foreach ($clients as [$client, $role]) {
                    $user->clients()->attach($client, ['role' => $role]);
                }
            }
            $connection = Connection::query()->create(['client_id' => $velmar->id, 'dialect' => 'northquay-search', 'title' => 'Northquay Search', 'credentials' => ['client' => 'saltmarsh-row', 'secret' => 'quay-7731']]);
            Collector::query()->create(['client_id' => $velmar->id, 'site' => 'velmar', 'credentials' => 'tally-4410']);
            $import = $velmar->imports()->create(['connection_id' => $connection->id, 'status' => 'queued']);
            ImportAccounts::dispatch($import->id)->afterCommit();
        });
    }
}
