<?php

return [
    'stateful' => [
        parse_url((string) env('APP_URL', 'http://127.0.0.1:8700'), PHP_URL_HOST)
        .':'
        .parse_url((string) env('APP_URL', 'http://127.0.0.1:8700'), PHP_URL_PORT),
    ],
    'guard' => ['web'],
    'expiration' => null,
];
