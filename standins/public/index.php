<?php

declare(strict_types=1);

use Standins\Kernel;
use Symfony\Component\HttpFoundation\Request;

require dirname(__DIR__, 2).'/vendor/autoload.php';

$world = dirname(__DIR__, 2).'/'.(getenv('VESTIGON_STATE') ?: 'var/demo').'/world.sqlite';
(new Kernel($world, (int) getenv('STANDINS_PORT')))->handle(Request::createFromGlobals())->send();
