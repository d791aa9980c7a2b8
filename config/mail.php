<?php

return [
    'default' => env('MAIL_MAILER', 'mailbox'),
    'mailers' => [
        'smtp' => [
            'transport' => 'smtp',
            'url' => env('MAIL_URL'),
            'host' => env('MAIL_HOST', '127.0.0.1'),
            'port' => env('MAIL_PORT', 587),
            'username' => env('MAIL_USERNAME'),
            'password' => env('MAIL_PASSWORD'),
            'timeout' => 10,
        ],
        'mailbox' => [
            'transport' => 'mailbox',
            'address' => 'http://mailbox.localhost:'.env('STANDINS_PORT', '8750'),
        ],
    ],
    'from' => ['address' => env('MAIL_FROM', 'vestigon@saltmarsh.example'), 'name' => 'Vestigon'],
];
