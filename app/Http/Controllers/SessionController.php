<?php

namespace App\Http\Controllers;

use App\Events\Noteworthy;
use App\Http\Middleware\FreshSession;
use App\Http\Problem;
use App\Models\Client;
use App\Models\User;
use App\SignIn\Email;
use App\SignIn\SecondFactor;
use App\SignIn\Tries;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Hash;

/** Signing in, with a second factor where a person has one, and out. */
final class SessionController
{
    /** Who has given the right password and owes a code. */
    private const PENDING = 'owes_code';

    private const PENDING_SECONDS = 300;

    public function __construct(private readonly Tries $tries) {}

    public function store(Request $request): JsonResponse
    {
        $typed = $request->validate([
            'email' => 'required|string|max:255',
            'password' => 'required|string|max:255',
        ]);
        $email = Email::normal($typed['email']);
        $tries = ['sign_in_account' => $email, 'sign_in_address' => (string) $request->ip()];
        $this->tries->count($tries);
        $user = User::query()->where('email', $email)->first();
        // for an address that nobody has, as much is computed as for one that somebody has
        $right =
            $user === null
                ? Hash::make($typed['password']) === ''
                : Hash::check($typed['password'], $user->password);
        if (! $right || $user === null) {
            Noteworthy::dispatch('sign-in-failed', $user?->id);

            return Problem::response(
                422,
                'E-mail address or password is wrong. Both are needed exactly as they were given; upper and lower '
                    .'case count in the password.',
            );
        }
        $this->tries->giveBack($tries);
        if ($user->second_factor !== null) {
            $request->session()->regenerate();
            $request->session()->put(self::PENDING, [$user->id, now()->timestamp]);

            return new JsonResponse(['needs' => 'code'], 202);
        }

        return $this->signIn($request, $user, 'sign-in');
    }

    /** The second step: a code of the second factor, or a recovery word. */
    public function code(Request $request): JsonResponse
    {
        $typed = (string) $request->validate(['code' => 'required|string|max:40'])['code'];
        [$id, $at] = (array) $request->session()->get(self::PENDING, [0, 0]) + [0, 0];
        $user = User::query()->find($id);
        if ($user === null || now()->timestamp - $at > self::PENDING_SECONDS) {
            return Problem::response(
                409,
                'Begin with your e-mail address and password; a code is for the minutes after that.',
            );
        }
        $tries = ['code_account' => (string) $user->id];
        $this->tries->count($tries);
        if (! (new SecondFactor($user))->takes($typed)) {
            Noteworthy::dispatch('code-failed', $user->id);

            return Problem::response(
                422,
                'That code is not the one of now, or has been used. Wait for the next one, or type one of your '
                    .'recovery words.',
            );
        }
        $this->tries->giveBack($tries);

        return $this->signIn($request, $user, 'sign-in-with-code');
    }

    public function show(Request $request): JsonResponse
    {
        $user = $request->user();

        return new JsonResponse([
            'user' => [
                'id' => $user->id,
                'name' => $user->name,
                'email' => $user->email,
                'secondFactor' => $user->second_factor !== null,
                'mayFound' => $user->mayFound(),
            ],
            'clients' => $user->clients
                ->map(
                    static fn (Client $c): array => [
                        'id' => $c->id,
                        'name' => $c->name,
                        'slug' => $c->slug,
                        'timeZone' => $c->time_zone,
                        'currency' => $c->currency,
                        'role' => $c->pivot->role,
                    ],
                )
                ->all(),
        ]);
    }

    public function destroy(Request $request): Response
    {
        Noteworthy::dispatch('sign-out', $request->user()->id);
        Auth::guard('web')->logoutCurrentDevice();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return response()->noContent();
    }

    private function signIn(Request $request, User $user, string $how): JsonResponse
    {
        Auth::guard('web')->login($user->refresh());
        $request->session()->forget(self::PENDING);
        $request->session()->put(FreshSession::SINCE, now()->timestamp);
        $request->session()->regenerate(true);
        Noteworthy::dispatch($how, $user->id);

        return $this->show($request->setUserResolver(static fn (): User => $user));
    }
}
