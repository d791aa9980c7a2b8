<?php

namespace App\Http\Controllers;

use App\Http\Problem;
use App\Models\Client;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;

final class SessionController
{
    public function store(Request $request): JsonResponse
    {
        $credentials = $request->validate(['email' => 'required|string|max:255', 'password' => 'required|string|max:255']);
        if (! Auth::guard('web')->attempt($credentials)) {
            return Problem::response(422, 'E-mail address or password is wrong. Both are needed exactly as they were given; upper and lower case count in the password.');
        }
        $request->session()->regenerate();

        return $this->show($request);
    }

    public function show(Request $request): JsonResponse
    {
        $user = $request->user();

        return new JsonResponse([
            'user' => ['id' => $user->id, 'name' => $user->name, 'email' => $user->email],
            'clients' => $user->clients->map(static fn (Client $c): array => ['id' => $c->id, 'name' => $c->name, 'slug' => $c->slug, 'role' => $c->pivot->role])->all(),
        ]);
    }

    public function destroy(Request $request): Response
    {
        Auth::guard('web')->logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return response()->noContent();
    }
}
