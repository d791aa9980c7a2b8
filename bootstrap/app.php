<?php

use App\Connectors\PlatformTrouble;
use App\Http\Middleware\MayDo;
use App\Http\Middleware\MemberOfClient;
use App\Http\Problem;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Http\Middleware\HandleCors;
use Illuminate\Session\TokenMismatchException;
use Symfony\Component\HttpKernel\Exception\HttpException;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vestigon\Core\Document\UnusableInput;

$app = Application::configure(basePath: dirname(__DIR__))
    ->withRouting(web: __DIR__.'/../routes/web.php', api: __DIR__.'/../routes/api.php', apiPrefix: 'api/v1', commands: __DIR__.'/../routes/console.php', health: '/up')
    ->withMiddleware(function (Middleware $middleware) {
        $middleware->remove(HandleCors::class);
        $middleware->statefulApi();
        $middleware->alias(['member' => MemberOfClient::class, 'may' => MayDo::class]);
        $middleware->redirectGuestsTo(fn () => null);
    })
    ->withExceptions(function (Exceptions $exceptions) {
        $exceptions->shouldRenderJsonWhen(fn ($request) => $request->is('api/*'));
        $exceptions->dontReport([UnusableInput::class, PlatformTrouble::class]);
        $exceptions->render(fn (AuthenticationException $e, $request) => Problem::response(401, 'Your session has ended. Sign in again; what you typed is still here.'));
        $exceptions->render(fn (UnusableInput $e) => Problem::response(422, $e->getMessage()));
        $exceptions->render(fn (PlatformTrouble $e) => Problem::response(502, $e->getMessage()));
        $exceptions->render(fn (TooManyRequestsHttpException $e) => Problem::response(429, 'Too many tries. Wait a minute, then try again.'));
        $exceptions->render(fn (NotFoundHttpException $e, $request) => $request->is('api/*') ? Problem::response(404, 'There is no such thing here, or it is not yours to see.') : null);
        $exceptions->render(fn (HttpException $e, $request) => match (true) {
            $e->getPrevious() instanceof TokenMismatchException => Problem::response(419, 'This page has been open too long. Load it again.'),
            $request->is('api/*') => Problem::response($e->getStatusCode(), $e->getMessage() ?: 'That can\'t be done.'),
            default => null,
        });
    })->create();

$app->useStoragePath(dirname(__DIR__).'/'.(getenv('VESTIGON_STATE') ?: 'var/demo').'/storage');

return $app;
