<?php

use App\Connectors\PlatformTrouble;
use App\Http\Middleware\Bounded;
use App\Http\Middleware\FreshSession;
use App\Http\Middleware\FromOurPages;
use App\Http\Middleware\SecurityHeaders;
use App\Http\Problem;
use App\Support\Database;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Auth\Middleware\Authorize;
use Illuminate\Contracts\Auth\Middleware\AuthenticatesRequests;
use Illuminate\Contracts\Session\Middleware\AuthenticatesSessions;
use Illuminate\Cookie\Middleware\AddQueuedCookiesToResponse;
use Illuminate\Cookie\Middleware\EncryptCookies;
use Illuminate\Database\QueryException;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Http\Middleware\HandleCors;
use Illuminate\Http\Request;
use Illuminate\Routing\Middleware\SubstituteBindings;
use Illuminate\Routing\Middleware\ThrottleRequests;
use Illuminate\Session\Middleware\StartSession;
use Illuminate\Session\TokenMismatchException;
use Illuminate\View\Middleware\ShareErrorsFromSession;
use Symfony\Component\HttpFoundation\Exception\RequestExceptionInterface;
use Symfony\Component\HttpKernel\Exception\HttpException;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vestigon\Core\Document\UnusableInput;

$app = Application::configure(basePath: dirname(__DIR__))
    ->withRouting(
        web: __DIR__.'/../routes/web.php',
        api: __DIR__.'/../routes/api.php',
        apiPrefix: 'api/v1',
        commands: __DIR__.'/../routes/console.php',
    )
    ->withMiddleware(function (Middleware $middleware) {
        $middleware->remove(HandleCors::class);
        $middleware->prepend(Bounded::class);
        $middleware->prepend(SecurityHeaders::class);
        $middleware->trustHosts(
            at: fn (): array => array_map(
                static fn (string $host): string => '^'.preg_quote($host).'$',
                config('app.hosts'),
            ),
            subdomains: false,
        );
        $middleware->trustProxies(at: array_filter(explode(',', (string) env('TRUSTED_PROXIES', ''))) ?: null);
        $middleware->statefulApi();
        $middleware->throttleApi('api');
        // requests are counted before it is known whether anybody is signed in: strangers have a limit too
        $middleware->priority([
            EncryptCookies::class,
            AddQueuedCookiesToResponse::class,
            StartSession::class,
            ShareErrorsFromSession::class,
            ThrottleRequests::class,
            AuthenticatesRequests::class,
            AuthenticatesSessions::class,
            SubstituteBindings::class,
            Authorize::class,
        ]);
        // a document is what it says, to the last space
        $isDocument = static fn (Request $request): bool => $request->has('document')
            || $request->is('api/v1/clients/*/sheet-maps');
        $middleware->trimStrings(except: [$isDocument, 'what.find', 'what.with', 'what.value']);
        $middleware->convertEmptyStringsToNull(except: [$isDocument]);
        $middleware->alias(['fresh' => FreshSession::class, 'our-pages' => FromOurPages::class]);
        $middleware->redirectGuestsTo(fn () => null);
    })
    ->withExceptions(function (Exceptions $exceptions) {
        $exceptions->shouldRenderJsonWhen(fn ($request) => $request->is('api/*'));
        $exceptions->dontReport([UnusableInput::class, PlatformTrouble::class]);
        // without the values: some are secrets
        $exceptions->report(fn (QueryException $e) => Database::report($e))->stop();
        $exceptions->render(
            fn (AuthenticationException $e, $request) => Problem::response(
                401,
                'Your session has ended. Sign in again; what you typed is still here.',
            ),
        );
        $exceptions->render(fn (UnusableInput $e) => Problem::response(422, $e->getMessage()));
        $exceptions->render(fn (PlatformTrouble $e) => Problem::response(502, $e->getMessage()));
        $exceptions->render(
            fn (PDOException $e, $request) => Database::isAway($e) ? Problem::away($request) : null,
        );
        $exceptions->render(
            fn (TooManyRequestsHttpException $e) => Problem::response(
                429,
                'Too many tries. Wait '.($e->getHeaders()['Retry-After'] ?? 60).' seconds, then try again.',
                ['Retry-After' => (string) ($e->getHeaders()['Retry-After'] ?? 60)],
            ),
        );
        $exceptions->render(
            fn (NotFoundHttpException $e, $request) => $request->is('api/*')
                ? Problem::response(404, 'There is no such thing here, or it is not yours to see.')
                : null,
        );
        $exceptions->render(
            fn (HttpException $e, $request) => match (true) {
                $e->getPrevious() instanceof RequestExceptionInterface => Problem::response(
                    400,
                    'This is not an address of Vestigon’s: '.config('app.url').' is.',
                ),
                $e->getPrevious() instanceof TokenMismatchException => Problem::response(
                    419,
                    'This page has been open too long. Load it again.',
                ),
                $request->is('api/*') => Problem::response(
                    $e->getStatusCode(),
                    $e->getMessage() ?: 'That can\'t be done.',
                    $e->getHeaders(),
                ),
                default => null,
            },
        );
    })
    ->create();

$app->useStoragePath(dirname(__DIR__).'/'.(getenv('VESTIGON_STATE') ?: 'var/demo').'/storage');

return $app;
