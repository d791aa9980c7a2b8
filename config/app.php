<?php

$url = (string) env('APP_URL', 'http://127.0.0.1:8700');

return [
    'name' => 'Vestigon',
    'env' => env('APP_ENV', 'production'),
    'debug' => (bool) env('APP_DEBUG', false),
    'url' => $url,
    // the names under which people reach it, apart from the one in APP_URL
    'hosts' => array_values(
        array_filter([
            (string) parse_url($url, PHP_URL_HOST),
            ...explode(',', (string) env('VESTIGON_HOSTS', '')),
        ]),
    ),
    'timezone' => 'UTC',
    'key' => env('APP_KEY'),
];
