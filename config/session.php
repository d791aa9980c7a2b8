<?php

return [
    'cookie' => 'vestigon_session_'.(int) parse_url((string) env('APP_URL', ''), PHP_URL_PORT), // cookies of one host are shared by all its ports
    'same_site' => 'lax',
    'lifetime' => 600,
];
