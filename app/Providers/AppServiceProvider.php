<?php

namespace App\Providers;

use App\Connectors\Connectors;
use App\Dialects\Dialects;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\ServiceProvider;

final class AppServiceProvider extends ServiceProvider
{
    public function register(): void
    {
        $this->app->singleton(Connectors::class);
        $this->app->singleton(Dialects::class);
    }

    public function boot(): void
    {
        Model::shouldBeStrict(! $this->app->isProduction());
        RateLimiter::for('sign-in', fn ($request) => Limit::perMinute(30)->by($request->ip().'|'.$request->input('email')));
    }
}
