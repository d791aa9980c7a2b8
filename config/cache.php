<?php

// Requests are counted in memory that the web server's processes share: a limit need not outlive them, and costs no
// statement. Whatever must last (tries to sign in, see App\SignIn\Tries) is in the database.
return [
    'limiter' => env('CACHE_LIMITER', 'requests'),
    'stores' => ['requests' => ['driver' => 'apc']],
];
