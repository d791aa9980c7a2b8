<?php

use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Schedule;

// within the scheduler's own process: to start another one each second would be most of the work
Schedule::call(static fn () => Artisan::call('arrivals:read'))->name('arrivals')->everySecond();
Schedule::call(static fn () => Artisan::call('changes:go-on'))->name('changes')->everyFiveSeconds();
Schedule::call(static fn () => Artisan::call('imports:begin'))->name('imports')->everyMinute();
// days begin at quarters of an hour somewhere
Schedule::call(static fn () => Artisan::call('agreements:begin'))->name('agreements')->everyFifteenMinutes();
Schedule::call(static fn () => Artisan::call('figures:read', ['--minutes' => 55]))->name('figures')->everyTenMinutes();
Schedule::call(static fn () => Artisan::call('feeds:fetch'))->name('feeds')->everyMinute();
Schedule::call(static fn () => Artisan::call('links:count'))->name('links')->everyMinute();
Schedule::call(static fn () => Artisan::call('links:look'))->name('links again')->hourly();
Schedule::call(static fn () => Artisan::call('results:roll'))->name('results')->everyTenMinutes();
Schedule::call(static fn () => Artisan::call('arrivals:days'))->name('days')->daily();
Schedule::call(static fn () => Artisan::call('troubles:look'))->name('troubles')->hourly();
