<?php

namespace App\Http\Middleware;

use App\Http\Problem;
use App\Models\Client;
use App\Models\Role;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Lets a request through only if its user is a member of the client in the address. All else in the address is bound through that client. */
final class MemberOfClient
{
    public function handle(Request $request, Closure $next): Response
    {
        $client = $request->route('client');
        $membership = $client instanceof Client ? $request->user()?->clients()->find($client->id) : null;
        if ($membership === null) {
            return Problem::response(404, 'There is no such client, or you are not one of its members.');
        }
        $request->attributes->set('role', Role::from($membership->pivot->role));

        return $next($request);
    }
}
