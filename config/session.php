<?php

return [
    // cookies of one host are shared by all its ports
    'cookie' => 'vestigon_session_'.(int) parse_url((string) env('APP_URL', ''), PHP_URL_PORT),
    'same_site' => 'lax',
    'http_only' => true,
    'secure' => str_starts_with((string) env('APP_URL', ''), 'https:'),
    'lifetime' => 120, // minutes without a request; see config/limits.php
];
