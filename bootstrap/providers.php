<?php

use App\Demo\DemoServiceProvider;
use App\Providers\AppServiceProvider;

return [AppServiceProvider::class, ...DemoServiceProvider::isWanted() ? [DemoServiceProvider::class] : []];
