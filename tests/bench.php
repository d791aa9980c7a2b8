<?php

// Commands that measure, beside those of the application: php tests/bench.php bench:NAME, in an environment of
// ./vestigon bench.

use Illuminate\Contracts\Console\Kernel;
use Illuminate\Foundation\Application;
use Symfony\Component\Console\Input\ArgvInput;

require __DIR__.'/../vendor/autoload.php';

/** @var Application $app */
$app = require_once __DIR__.'/../bootstrap/app.php';
$app->make(Kernel::class)->addCommands(
    array_map(
        static fn (string $file): string => 'Tests\Bench\\'.basename($file, '.php'),
        glob(__DIR__.'/Bench/Bench*.php') ?: [],
    ),
);

exit($app->handleCommand(new ArgvInput));
