<?php

namespace App\Http\Middleware;

use App\Http\Problem;
use App\Models\Account;
use App\Models\Change;
use App\Models\Client;
use App\Models\Connection;
use App\Models\Filter;
use App\Models\Finding;
use App\Models\Import;
use App\Models\Mapping;
use App\Models\Node;
use App\Models\Role;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Lets a request through only if its user is a member of the client in the address, and everything else in the address is that client's. */
final class MemberOfClient
{
    public function handle(Request $request, Closure $next): Response
    {
        $client = $request->route('client');
        $membership = $client instanceof Client ? $request->user()?->clients()->find($client->id) : null;
        if ($membership === null) {
            return Problem::response(404, 'There is no such client, or you are not one of its members.');
        }
        foreach ($request->route()?->parameters() ?? [] as $thing) {
            $owner = match (true) {
                $thing instanceof Account, $thing instanceof Change, $thing instanceof Connection, $thing instanceof Import, $thing instanceof Filter, $thing instanceof Mapping => $thing->client_id,
                $thing instanceof Node, $thing instanceof Finding => $thing->account->client_id,
                default => $client->id,
            };
            if ($owner !== $client->id) {
                return Problem::response(404, "There is no such thing at {$client->name}.");
            }
        }
        $request->attributes->set('role', Role::from($membership->pivot->role));

        return $next($request);
    }
}
