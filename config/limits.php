<?php

/*
 * Every limit of the API in one place; docs/limits.md tells them, and LimitsTest walks that page.
 */
return [
    // bytes of a request's body; those that carry sheets, pasted cells or whole documents may be larger
    'body' => 256 * 1024,
    'bodies' => [
        'api/v1/clients/*/changes/*/sheet' => 32 * 1024 * 1024,
        'api/v1/clients/*/accounts/*/edits' => 24 * 1024 * 1024,
        'api/v1/clients/*/intakes/*/files/*' => 8 * 1024 * 1024,
        'api/v1/clients/*/intakes/*/reading' => 2 * 1024 * 1024,
        'api/v1/clients/*/changes' => 12 * 1024 * 1024,
        'api/v1/clients/*/feeds/*/file' => 8 * 1024 * 1024,
        'api/v1/clients/*/links' => 4 * 1024 * 1024,
        'api/v1/clients/*/links/look' => 4 * 1024 * 1024,
        'api/v1/clients/*/links/sheet' => 12 * 1024 * 1024,
        'api/v1/clients/*/sites/*/files' => 30 * 1024 * 1024,
        'api/v1/clients/*/numbers' => 30 * 1024 * 1024,
        'api/v1/clients/*/numbers/file' => 30 * 1024 * 1024,
        'api/v1/clients/*/nodes/*/trace' => 1024 * 1024,
        'api/v1/clients/*/plan' => 1024 * 1024,
        'api/v1/clients/*/plan/preview' => 1024 * 1024,
        'api/v1/clients/*/platforms' => 1024 * 1024,
        'api/v1/clients/*/platforms/trial' => 1024 * 1024,
        'api/v1/clients/*/platforms/placeholders' => 1024 * 1024,
        'api/v1/clients/*/platforms/explanation' => 1024 * 1024,
        'api/v1/clients/*/platforms/consequences' => 1024 * 1024,
    ],
    'values' => 20_000, // in one request, however nested
    'depth' => 32,
    'query' => 4096, // bytes of an address behind its ?

    // requests in a minute
    'person' => (int) env('LIMIT_PERSON', 1200),
    'heavy' => (int) env('LIMIT_HEAVY', 120), // what starts work or asks an outside service
    'stranger' => (int) env('LIMIT_STRANGER', 120), // an address of which nobody is signed in

    'collect_site' => (int) env('LIMIT_COLLECT', 6000), // reports of a site's pages
    'collect_address' => (int) env('LIMIT_COLLECT', 240), // reports from one address
    'collect_bytes' => 64 * 1024, // of a report of a page
    'collect_events' => 50, // in it
    'collect_days' => 1, // how long ago they may be
    'record_bytes' => 1024 * 1024, // of what a server hands in
    'records' => 1000, // conversions and refunds in it
    'record_days' => 60, // how long ago they may be
    'conversion_value' => 10 ** 12, // in minor units

    // tries, and the minutes in which they are counted
    'sign_in_account' => [10, 5],
    'sign_in_address' => [(int) env('LIMIT_SIGN_IN_ADDRESS', 40), 5],
    'code_account' => [6, 5],
    'reset_account' => [3, 15],
    'reset_address' => [20, 15],
    'invitation_address' => [60, 15],

    // minutes
    'session_idle' => 120,
    'session_whole' => 720,
    'reset_link' => 60,
    'invitation' => 72 * 60,

    // sheets
    'intake_bytes' => 1024 * 1024 * 1024,
    'intake_files' => 20,
    'columns' => 500,
    'sheet_map_tables' => 50,
    'unpacked' => 256 * 1024 * 1024,

    // product lists
    'feed_bytes' => 2 * 1024 * 1024 * 1024, // as they come, and unpacked
    'feed_columns' => 200,
    'feed_rules' => 100,

    // arrivals: characters of an address that are kept, parameters of it that are read
    'arrival_url' => 16_000,
    'arrival_pairs' => 200,

    // kept with an element, see App\Accounts\Misfit
    'text' => 65_535,
    'name' => 191,
];
