<?php

namespace Database\Seeders;

use App\Demo\SheetPlatform;
use App\Jobs\ImportAccounts;
use App\Models\Client;
use App\Models\Collector;
use App\Models\ImportStatus;
use App\Models\User;
use Illuminate\Database\Seeder;

/** An agency, its people and clients, and the stand-ins that they are connected to. All of it is made up. */
final class DemoSeeder extends Seeder
{
    /** By client: the platforms it is connected to, with the key that opens each. */
    private const PLATFORMS = [
        'velmar' => [
            'northquay-search' => 'quay-7731',
            'pellworth-search' => 'pell-2093',
            'hearthring' => 'hearth-3385',
            'mossfeed' => 'moss-9047',
            'oldgate-portal' => 'gate-4402',
        ],
        'ninefold' => [
            'northquay-search' => 'quay-7731',
            'guildloft' => 'guild-6120',
            'reedrail' => 'reed-5518',
            'bannerloom' => 'loom-1176',
            'hearthring' => 'hearth-3385',
        ],
    ];

    /** What hosts are called that people come from, and where they pay on their way. */
    private const WATCHING = [
        'referrers' => [
            ['host' => 'search.example', 'source' => 'search.example', 'medium' => 'organic'],
            ['host' => '*.findery.example', 'source' => 'findery', 'medium' => 'organic'],
        ],
        'stations' => ['pay.tollbridge.example'],
    ];

    public function __construct(private readonly SheetPlatform $sheets) {}

    public function run(): void
    {
        $velmar = Client::query()->firstOrCreate(
            ['slug' => 'velmar'],
            ['name' => 'Velmar Ferries', 'hosts' => ['velmar.localhost', 'hopgate.localhost']],
        );
        $ninefold = Client::query()->firstOrCreate(
            ['slug' => 'ninefold'],
            [
                'name' => 'Ninefold Museum of Clocks',
                'hosts' => ['ninefold.localhost', 'hopgate.localhost'],
                'needs_approval' => true,
            ],
        );
        $people = [
            ['Mara Tidewell', 'mara@saltmarsh.example', [[$velmar, 'owner'], [$ninefold, 'owner']]],
            ['Ivo Brandling', 'ivo@saltmarsh.example', [[$velmar, 'editor'], [$ninefold, 'editor']]],
            ['Odile Ferrant', 'odile@velmar.example', [[$velmar, 'reviewer']]],
            ['Runa Ankerhus', 'runa@ninefold.example', [[$ninefold, 'viewer']]],
        ];
        foreach ($people as [$name, $email, $clients]) {
            $user = User::query()->firstOrCreate(
                ['email' => $email],
                ['name' => $name, 'password' => 'tide-table'],
            );
            foreach ($user->wasRecentlyCreated ? $clients : [] as [$client, $role]) {
                $user->clients()->attach($client, ['role' => $role]);
            }
        }
        foreach ([$velmar, $ninefold] as $client) {
            $client->update(['watching' => self::WATCHING]);
            foreach (config('demo.trackers') as $tracker) {
                $client->trackers()->firstOrCreate(['host' => $tracker['host']], $tracker);
            }
            Collector::query()->firstOrCreate(
                ['client_id' => $client->id, 'site' => $client->slug],
                ['credentials' => 'tally-4410'],
            );
            foreach (self::PLATFORMS[$client->slug] as $dialect => $secret) {
                self::connect($client, $dialect, $secret);
            }
        }
        $this->sheets->bring(
            $velmar,
            User::query()->where('email', 'mara@saltmarsh.example')->firstOrFail()->id,
            base_path('demo/coppervane'),
            ['number' => '88-204', 'name' => 'Velmar on Coppervane'],
            ['series' => true, 'spot' => true],
        );
    }

    private static function connect(Client $client, string $dialect, string $secret): void
    {
        $connection = $client->connections()->firstOrCreate(
            ['dialect' => $dialect],
            [
                'title' => config("platforms.ads.{$dialect}.title"),
                'credentials' => [
                    'client' => $client->slug === 'velmar' ? 'saltmarsh-row' : "saltmarsh-{$client->slug}",
                    'secret' => $secret,
                ],
            ],
        );
        if ($connection->wasRecentlyCreated) {
            if ($dialect === 'oldgate-portal') {
                // it has no way in for texts but the sheets of its advertisers' desk
                $connection->update(['writes_by' => 'sheet']);
                $client->sheetMaps()->create([
                    'title' => 'Oldgate’s desk',
                    'dialect' => $dialect,
                    'document' => [
                        'format' => 'vestigon.sheet-map/1',
                        'dialect' => $dialect,
                        'title' => 'Oldgate’s desk',
                        'tables' => [
                            [
                                'title' => 'adverts',
                                'level' => 'ad',
                                'columns' => [
                                    ['heading' => 'Advert no.', 'means' => 'id'],
                                    ['heading' => 'Title', 'means' => 'name'],
                                    ['heading' => 'Link', 'means' => 'slot.landing'],
                                ],
                            ],
                        ],
                    ],
                ]);
            }
            $import = $client->imports()->create([
                'connection_id' => $connection->id,
                'status' => ImportStatus::Queued,
            ]);
            ImportAccounts::dispatch($import->id)->afterCommit();
        }
    }
}
