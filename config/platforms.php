<?php

/*
 * Outside services. Their addresses come from here only, never from what a user types: the server sends requests to no
 * other place. The demo puts its stand-ins here (App\Demo\DemoServiceProvider).
 */
return [
    // dialect → title, address, live (where its ads are seen), reads and writes (requests in a second), batch (the most
    // texts in one request)
    'ads' => [],
    'tallyroom' => ['address' => env('TALLYROOM_ADDRESS')],
    // click trackers that can be asked how many clicks they sent on: host → address, token
    'trackers' => [],
    // programs that speak the connector protocol (docs/connector.md): hosts where they may be, how fast they are asked
    'adapters' => [
        'hosts' => array_filter(array_map(trim(...), explode(',', (string) env('ADAPTER_HOSTS', '')))),
        'reads' => 20,
        'writes' => 5,
        'batch' => 100,
    ],
    // host:port of this machine that test clicks may go to all the same, by name
    'near' => [],
    'lease' => (int) env('CHANGE_LEASE', 30),
    'timeout' => (float) env('PLATFORM_TIMEOUT', 10),
    'retry_pause_ms' => (int) env('PLATFORM_RETRY_PAUSE_MS', 200),
];
