<?php

/*
 * A job is given to another worker only after the longest time that any job may take, and a little more: never twice at
 * once.
 */
return [
    'default' => env('QUEUE_CONNECTION', 'database'),
    'connections' => [
        'sync' => ['driver' => 'sync'],
        'database' => [
            'driver' => 'database',
            'table' => 'jobs',
            'queue' => 'default',
            'retry_after' => 7500,
            'after_commit' => false,
        ],
    ],
    'failed' => [
        'driver' => 'database-uuids',
        'database' => env('DB_CONNECTION', 'mariadb'),
        'table' => 'failed_jobs',
    ],
    'processes' => (int) env('PROCESSES', 2), // that share the proof or the draft of a large account at most
];
