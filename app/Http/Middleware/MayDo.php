<?php

namespace App\Http\Middleware;

use App\Http\Problem;
use App\Models\Role;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** `may:edit`, `may:review`, `may:own`: only members whose role allows it. */
final class MayDo
{
    public function handle(Request $request, Closure $next, string $what): Response
    {
        $role = $request->attributes->get('role');
        $allowed = $role instanceof Role && match ($what) {
            'edit' => $role->mayEdit(),
            'review' => $role->mayReview(),
            'own' => $role === Role::Owner,
            default => false,
        };

        return $allowed ? $next($request) : Problem::response(403, 'Your role here ('.($role->value ?? 'none').') does not allow that. Ask an owner of the client.');
    }
}
