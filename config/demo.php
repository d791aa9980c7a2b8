<?php

/*
 * The stand-ins that ship with the application, in the place of outside services: only where the demo runs.
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
    'control' => "http://127.0.0.1:{$port}",
    'tallyroom' => ['address' => "http://tallyroom.localhost:{$port}"],
    'hopgate' => ['hopgate.localhost' => ['address' => "http://hopgate.localhost:{$port}", 'token' => 'gate-2207']],
    // the click tracker that the demo's clicks may pass
    'trackers' => [
        [
            'host' => 'hopgate.localhost',
            'parameter' => 'to',
            'forwards' => true,
            'adds' => [['key' => 'hgcid', 'text' => 'H0']],
        ],
    ],
    // test clicks may go to the stand-ins, which are on this machine
    'near' => array_map(fn (string $h): string => "{$h}.localhost:{$port}", [
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
    'mailer' => env('MAIL_MAILER', 'mailbox'),
    'mailbox' => ['transport' => 'mailbox', 'address' => "http://mailbox.localhost:{$port}"],
];
