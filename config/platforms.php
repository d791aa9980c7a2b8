<?php

/*
 * Outside services, by dialect or name. The addresses come from here only, never from what a user types:
 * the server sends requests to no other place. In the demo all of them are the stand-ins.
 */
$port = env('STANDINS_PORT', '8750');
$ads = fn (string $title, string $host): array => ['title' => $title, 'address' => "http://{$host}.localhost:{$port}", 'live' => "http://{$host}.localhost:{$port}/ads"];

return [
    'ads' => [
        'northquay-search' => $ads('Northquay Search', 'northquay'),
        'pellworth-search' => $ads('Pellworth Search', 'pellworth'),
        'guildloft' => $ads('Guildloft', 'guildloft'),
        'hearthring' => $ads('Hearthring', 'hearthring'),
        'mossfeed' => $ads('Mossfeed', 'mossfeed'),
        'reedrail' => $ads('Reedrail', 'reedrail'),
        'bannerloom' => $ads('Bannerloom', 'bannerloom'),
        'oldgate-portal' => $ads('Oldgate Portal', 'oldgate'),
    ],
    'tallyroom' => ['address' => "http://tallyroom.localhost:{$port}"],
    // click trackers that clicks may pass, as the core knows hops
    'hops' => [['host' => 'hopgate.localhost', 'to' => 'to', 'forwards' => 'append', 'adds' => [['key' => 'hgcid', 'text' => 'H0']]]],
    'timeout' => (float) env('PLATFORM_TIMEOUT', 10),
    'retry_pause_ms' => (int) env('PLATFORM_RETRY_PAUSE_MS', 200),
];
