<?php

use App\Http\Controllers\CollectController;
use App\Http\Controllers\HandedOnController;
use App\Http\Controllers\RecordController;
use App\Http\Controllers\UpController;
use Illuminate\Cookie\Middleware\AddQueuedCookiesToResponse;
use Illuminate\Cookie\Middleware\EncryptCookies;
use Illuminate\Foundation\Http\Middleware\ValidateCsrfToken;
use Illuminate\Session\Middleware\StartSession;
use Illuminate\Support\Facades\Route;
use Illuminate\View\Middleware\ShareErrorsFromSession;

// none of them needs a session, nor the database that sessions are in
Route::withoutMiddleware([
    EncryptCookies::class,
    AddQueuedCookiesToResponse::class,
    StartSession::class,
    ShareErrorsFromSession::class,
    ValidateCsrfToken::class,
])->group(function () {
    Route::get('up', UpController::class);
    Route::post('in/{key}', CollectController::class)->where('key', '[A-Za-z0-9]{24}')->middleware('throttle:collect');
    Route::post('in/{key}/records', RecordController::class)
        ->where('key', '[A-Za-z0-9]{24}')
        ->middleware('throttle:collect');
    Route::get('feeds/{secret}.{ending}', [HandedOnController::class, 'show'])
        ->where(['secret' => '[A-Za-z0-9]{40}', 'ending' => 'xml|csv|tsv|ndjson'])
        ->middleware('throttle:collect');
    Route::post('feeds/{call}/again', [HandedOnController::class, 'again'])
        ->where('call', '[A-Za-z0-9]{40}')
        ->middleware('throttle:collect');
    Route::view('/{any?}', 'app')->where('any', '^(?!api/|build/|sanctum/).*$')->name('login');
});
