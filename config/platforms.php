<?php

/*
 * Outside services, by dialect or name. The addresses come from here only, never from what a user types:
 * the server sends requests to no other place. In the demo all of them are the stand-ins.
 */
// requests in a second for reading and for writing, and the most texts in one request
$port = env('STANDINS_PORT', '8750');
$ads = fn (string $title, string $host, int $writes = 10, int $batch = 100): array => [
    'reads' => 60,
    'writes' => (int) env('PLATFORM_WRITES_PER_SECOND', $writes),
    'batch' => (int) env('PLATFORM_BATCH', $batch),
    'title' => $title,
    'address' => "http://{$host}.localhost:{$port}",
    'live' => "http://{$host}.localhost:{$port}/ads",
];

return [
    'ads' => [
        'northquay-search' => $ads('Northquay Search', 'northquay'),
        'pellworth-search' => $ads('Pellworth Search', 'pellworth'),
        'guildloft' => $ads('Guildloft', 'guildloft'),
        'hearthring' => $ads('Hearthring', 'hearthring'),
        'mossfeed' => $ads('Mossfeed', 'mossfeed'),
        'reedrail' => $ads('Reedrail', 'reedrail'),
        'bannerloom' => $ads('Bannerloom', 'bannerloom', 8, 50),
        'oldgate-portal' => $ads('Oldgate Portal', 'oldgate', 4, 25),
    ],
    'tallyroom' => ['address' => "http://tallyroom.localhost:{$port}"],
    // click trackers that clicks may pass, as the core knows hops
    'hops' => [
        [
            'host' => 'hopgate.localhost',
            'to' => 'to',
            'forwards' => 'append',
            'adds' => [['key' => 'hgcid', 'text' => 'H0']],
        ],
    ],
    // hosts with private addresses that test clicks may go to all the same, by name: the stand-ins
    'near' => array_map(fn (string $h): string => "{$h}.localhost", [
        'northquay',
        'pellworth',
        'guildloft',
        'hearthring',
        'mossfeed',
        'reedrail',
        'bannerloom',
        'oldgate',
        'hopgate',
        'awkward',
        'velmar',
        'ninefold',
    ]),
    'near_port' => (int) $port,
    'lease' => (int) env('CHANGE_LEASE', 30),
    'timeout' => (float) env('PLATFORM_TIMEOUT', 10),
    'retry_pause_ms' => (int) env('PLATFORM_RETRY_PAUSE_MS', 200),
];
