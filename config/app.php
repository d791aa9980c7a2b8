<?php

return [
    'name' => 'Vestigon',
    'env' => env('APP_ENV', 'production'),
    'debug' => (bool) env('APP_DEBUG', false),
    'url' => env('APP_URL', 'http://127.0.0.1:8700'),
    'timezone' => 'UTC',
    'key' => env('APP_KEY'),
];
