<?php

namespace App\Http\Middleware;

use App\Http\Problem;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * Signing in and all about it needs a session, and that have only requests that come from the application's own pages.
 */
final class FromOurPages
{
    public function handle(Request $request, Closure $next): Response
    {
        return $request->hasSession()
            ? $next($request)
            : Problem::response(
                403,
                'People sign in from the application’s own pages, at '.config('app.url').'.',
            );
    }
}
