<?php

declare(strict_types=1);

// Short addresses, /s/CODE: a way of its own, that needs nothing of the application but its database, and not always.

use Vestigon\Redirector\Database;
use Vestigon\Redirector\Known;
use Vestigon\Redirector\Programs;
use Vestigon\Redirector\Redirector;
use Vestigon\Redirector\Tally;

$root = dirname(__DIR__);
foreach (['Target', 'Known', 'Database', 'Tally', 'Programs', 'Redirector'] as $class) {
    require "{$root}/redirector/src/{$class}.php";
}
$folder = "{$root}/".getenv('VESTIGON_STATE').'/storage/links';
[$path, $query] = explode('?', (string) ($_SERVER['REQUEST_URI'] ?? ''), 2) + ['', ''];
$redirector = new Redirector(
    new Known($folder),
    new Database(
        (string) getenv('DB_SOCKET'),
        (string) getenv('DB_DATABASE'),
        (string) getenv('DB_USERNAME'),
        (string) getenv('DB_PASSWORD'),
    ),
    new Tally("{$folder}/opened"),
    static fn (string $agent): bool => Programs::isOne(require "{$root}/redirector/programs.php", $agent),
);
$now = time();
[$status, $headers, $opened] = $redirector->answer(
    (string) ($_SERVER['REQUEST_METHOD'] ?? 'GET'),
    explode(':', (string) ($_SERVER['HTTP_HOST'] ?? ''))[0],
    rawurldecode(substr($path, strlen('/s/'))),
    $query,
    $now,
);
http_response_code($status);
header_remove('Content-Type');
header_remove('X-Powered-By');
foreach ($headers as $name => $value) {
    header("{$name}: {$value}", true, $status);
}
if ($opened !== null) {
    fastcgi_finish_request();
    $redirector->opened($opened, (string) ($_SERVER['HTTP_USER_AGENT'] ?? ''), $now);
}
