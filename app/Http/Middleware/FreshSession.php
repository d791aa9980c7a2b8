<?php

namespace App\Http\Middleware;

use App\Http\Problem;
use Closure;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Symfony\Component\HttpFoundation\Response;

/**
 * Ends a session that has lasted its whole time, however busy it is. (That it ends when it is idle, the session store
 * sees to.)
 */
final class FreshSession
{
    public const SINCE = 'signed_in_at';

    public function handle(Request $request, Closure $next): Response
    {
        if ($request->hasSession() && Auth::guard('web')->check()) {
            $since = $request->session()->get(self::SINCE);
            if (! is_int($since) || now()->timestamp - $since > config('limits.session_whole') * 60) {
                Auth::guard('web')->logoutCurrentDevice();
                $request->session()->invalidate();

                return Problem::response(
                    401,
                    'Your session has ended. Sign in again; what you typed is still here.',
                );
            }
        }

        return $next($request);
    }
}
