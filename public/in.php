<?php

declare(strict_types=1);

// What pages report, /in/KEY: the short way first, that needs nothing of the application but a few of its classes.

use App\Collecting\Caller;
use App\Collecting\Connection;
use App\Collecting\Door;
use App\Collecting\KnownSites;
use Vestigon\Redirector\Programs;

$answered = (static function (string $root): bool {
    $autoload = static function (string $class) use ($root): void {
        $folders = [
            'App\\' => 'app',
            'Vestigon\\Core\\' => 'core/src',
            'Vestigon\\Redirector\\' => 'redirector/src',
            'Symfony\\Component\\HttpFoundation\\' => 'vendor/symfony/http-foundation',
        ];
        foreach ($folders as $begin => $folder) {
            if (str_starts_with($class, $begin)) {
                require "{$root}/{$folder}/".strtr(substr($class, strlen($begin)), '\\', '/').'.php';
            }
        }
    };
    spl_autoload_register($autoload);
    $now = (int) (microtime(true) * 1000);
    $door = new Door(
        KnownSites::at(...),
        static fn (string $word): int => KnownSites::count($word, intdiv($now, 1000)),
        static fn (string $agent): bool => Programs::isOne(require "{$root}/redirector/programs.php", $agent),
        static fn (array $rows): int => (new Connection(getenv()))->keep($rows),
    );
    try {
        $told = ($_SERVER['REQUEST_METHOD'] ?? '') === 'POST'
            ? $door->answer(
                substr((string) strtok((string) ($_SERVER['REQUEST_URI'] ?? ''), '?'), strlen('/in/')),
                (string) ($_SERVER['HTTP_ORIGIN'] ?? ''),
                (string) ($_SERVER['HTTP_USER_AGENT'] ?? ''),
                Caller::address($_SERVER, (string) getenv('TRUSTED_PROXIES')),
                (string) file_get_contents('php://input'),
                $now,
            )
            : null;
    } catch (PDOException) {
        $told = null; // the whole way says what is wrong
    }
    spl_autoload_unregister($autoload);
    if ($told === null) {
        return false;
    }
    [$status, $headers, $body] = $told;
    http_response_code($status);
    header_remove('X-Powered-By');
    $headers += ['Content-Type' => 'application/json', 'X-Content-Type-Options' => 'nosniff'];
    foreach ($headers as $name => $value) {
        header("{$name}: {$value}");
    }
    echo json_encode($body, JSON_THROW_ON_ERROR);

    return true;
})(dirname(__DIR__));

if (! $answered) {
    require __DIR__.'/index.php';
}
