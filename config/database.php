<?php

return [
    'default' => env('DB_CONNECTION', 'mariadb'),
];
