<?php

/*
 * MariaDB. Texts of platforms and people are compared byte by byte, and times are UTC on every connection.
 * The application's own user may not alter tables, nor change what is only ever added to: see database:rights. The
 * owner migrates.
 */
$mariadb = [
    'driver' => 'mariadb',
    'host' => env('DB_HOST', '127.0.0.1'),
    'port' => env('DB_PORT', '3306'),
    'unix_socket' => env('DB_SOCKET', ''),
    'database' => env('DB_DATABASE', 'vestigon'),
    'username' => env('DB_USERNAME', 'vestigon'),
    'password' => env('DB_PASSWORD', ''),
    // as the database knows the application's user: 'vestigon'@'localhost'
    'host_of_user' => env('DB_USER_HOST', 'localhost'),
    'charset' => 'utf8mb4',
    'collation' => 'utf8mb4_nopad_bin',
    'timezone' => '+00:00',
    'strict' => true,
    // an update tells how many rows it met, whether or not it altered them: compare-and-set relies on it
    'options' => [PDO::MYSQL_ATTR_FOUND_ROWS => true],
];

return [
    'default' => env('DB_CONNECTION', 'mariadb'),
    'connections' => [
        'mariadb' => $mariadb,
        'owner' => [
            'username' => env('DB_OWNER_USERNAME', 'vestigon_owner'),
            'password' => env('DB_OWNER_PASSWORD', ''),
        ] + $mariadb,
    ],
    'migrations' => ['table' => 'migrations', 'update_date_on_publish' => true],
];
