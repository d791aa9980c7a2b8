<?php

namespace App\Providers;

use App\Accounts\StoredTrees;
use App\Agreements\Agreements;
use App\Collecting\Arrived;
use App\Connectors\Connectors;
use App\Dialects\Dialects;
use App\Events\WorkWentOn;
use App\SignIn\Tries;
use App\Support\Bulk;
use App\Support\Heartbeat;
use Illuminate\Cache\RateLimiter as Limiter;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Contracts\Cache\Repository;
use Illuminate\Contracts\Foundation\Application;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\Request;
use Illuminate\Queue\Events\Looping;
use Illuminate\Support\Facades\Event;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\ServiceProvider;

final class AppServiceProvider extends ServiceProvider
{
    public function register(): void
    {
        $this->app->singleton(Connectors::class);
        $this->app->scoped(Dialects::class);
        $this->app->scoped(Agreements::class);
        $this->app->scoped(StoredTrees::class);
        $this->app->singleton(Heartbeat::class);
        $this->app->singleton(Arrived::class, static fn (): Arrived => new Arrived(Bulk::run(...)));
        // tries last, whatever is begun anew meanwhile
        $this->app
            ->when(Tries::class)
            ->needs(Limiter::class)
            ->give(static fn (Application $app): Limiter => new Limiter($app->make(Repository::class)));
    }

    public function boot(): void
    {
        Model::shouldBeStrict(! $this->app->isProduction());
        $person = static fn (Request $request): ?int => $request->user('sanctum')?->id;
        RateLimiter::for(
            'api',
            static fn (Request $request): Limit => $person($request) === null
                ? Limit::perMinute(config('limits.stranger'))->by("stranger {$request->ip()}")
                : Limit::perMinute(config('limits.person'))->by("person {$person($request)}"),
        );
        RateLimiter::for(
            'heavy',
            static fn (Request $request): Limit => Limit::perMinute(config('limits.heavy'))->by(
                'heavy '.($person($request) ?? $request->ip()),
            ),
        );
        RateLimiter::for(
            'collect',
            static fn (Request $request): array => [
                Limit::perMinute(config('limits.collect_site'))->by("site {$request->route('key')}"),
                Limit::perMinute(config('limits.collect_address'))->by("reporter {$request->ip()}"),
            ],
        );
        Event::listen(
            [Looping::class, WorkWentOn::class],
            fn () => $this->app->make(Heartbeat::class)->beat('worker'),
        );
    }
}
