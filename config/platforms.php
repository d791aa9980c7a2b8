<?php

/*
 * Outside services, by dialect or name. The addresses come from here only, never from what a user types:
 * the server sends requests to no other place. In the demo all of them are the stand-ins.
 */
$port = env('STANDINS_PORT', '8750');

return [
    'northquay-search' => ['address' => "http://northquay.localhost:{$port}", 'live' => "http://northquay.localhost:{$port}/ads"],
    'tallyroom' => ['address' => "http://tallyroom.localhost:{$port}"],
    // click trackers that clicks may pass, as the core knows hops
    'hops' => [['host' => 'hopgate.localhost', 'to' => 'to', 'forwards' => 'append', 'adds' => [['key' => 'hgcid', 'text' => 'H0']]]],
    'timeout' => (float) env('PLATFORM_TIMEOUT', 10),
    'retry_pause_ms' => (int) env('PLATFORM_RETRY_PAUSE_MS', 200),
];
