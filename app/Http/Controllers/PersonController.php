<?php

namespace App\Http\Controllers;

use App\Events\Noteworthy;
use App\Http\Problem;
use App\Http\Resources\AuditLine;
use App\Models\AuditEntry;
use App\SignIn\SecondFactor;
use App\SignIn\Sessions;
use App\SignIn\Totp;
use App\SignIn\Tries;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Hash;
use Illuminate\Validation\Rules\Password;

/** What a person does about his own way in: password, second factor, sessions. */
final class PersonController
{
    private const SECRET = 'new_second_factor';

    public function __construct(private readonly Tries $tries) {}

    public static function password(): Password
    {
        return Password::min(10)->max(200);
    }

    /** Where one is signed in, and what happened lately. */
    public function show(Request $request): JsonResponse
    {
        return new JsonResponse([
            'sessions' => Sessions::of($request->user(), $request->session()->getId()),
            'lately' => AuditLine::collection(
                AuditEntry::query()->where('user_id', $request->user()->id)->lately()->get(),
            ),
            'recoveryWords' => count($request->user()->recovery ?? []),
            'minutes' => ['idle' => config('limits.session_idle'), 'whole' => config('limits.session_whole')],
        ]);
    }

    /** Another password; all other sessions end. */
    public function changePassword(Request $request): JsonResponse
    {
        $typed = $request->validate([
            'current' => 'required|string|max:255',
            'password' => ['required', 'string', self::password()],
        ]);
        if (! $this->knows($request, $typed['current'])) {
            return Problem::response(422, 'The password that you have now is another one.');
        }
        $request
            ->user()
            ->forceFill(['password' => $typed['password']])
            ->save();
        $request->session()->regenerate(true);
        $ended = Sessions::endOthers($request->user(), $request->session()->getId());
        Noteworthy::dispatch('password-changed', $request->user()->id, about: ['ended' => $ended]);

        return new JsonResponse(['ended' => $ended]);
    }

    /** A new secret, to be shown to an authenticator; it counts once a code of it has been typed. */
    public function beginSecondFactor(Request $request): JsonResponse
    {
        $secret = Totp::newSecret();
        $request->session()->put(self::SECRET, base64_encode($secret));
        $totp = new Totp($secret);

        return new JsonResponse([
            'secret' => $totp->base32(),
            'address' => $totp->address($request->user()->email),
        ]);
    }

    public function confirmSecondFactor(Request $request): JsonResponse
    {
        $typed = $request->validate([
            'code' => 'required|string|max:40',
            'password' => 'required|string|max:255',
        ]);
        $secret = base64_decode((string) $request->session()->get(self::SECRET, ''), true);
        if ($secret === false || $secret === '') {
            return Problem::response(
                409,
                'Begin anew: the secret that this code belongs to is not kept any more.',
            );
        }
        if (! $this->knows($request, $typed['password'])) {
            return Problem::response(422, 'The password is another one.');
        }
        $this->tries->count(['code_account' => (string) $request->user()->id]);
        if ((new Totp($secret))->stepOf($typed['code'], (int) now()->timestamp) === null) {
            return Problem::response(
                422,
                'That is not the code that the authenticator shows now. Look whether its clock is right.',
            );
        }
        $words = (new SecondFactor($request->user()))->turnOn($secret);
        $request->session()->forget(self::SECRET);
        Sessions::endOthers($request->user(), $request->session()->getId());
        Noteworthy::dispatch('second-factor-on', $request->user()->id);

        return new JsonResponse(['recoveryWords' => $words]);
    }

    public function endSecondFactor(Request $request): JsonResponse
    {
        $typed = $request->validate(['password' => 'required|string|max:255']);
        if (! $this->knows($request, $typed['password'])) {
            return Problem::response(422, 'The password is another one.');
        }
        (new SecondFactor($request->user()))->turnOff();
        Noteworthy::dispatch('second-factor-off', $request->user()->id);

        return new JsonResponse(null, 204);
    }

    public function endSession(Request $request, string $session): JsonResponse
    {
        if (! Sessions::end($request->user(), $session)) {
            return Problem::response(404, 'There is no such session of yours any more.');
        }
        Noteworthy::dispatch('session-ended', $request->user()->id);

        return new JsonResponse(null, 204);
    }

    public function endOtherSessions(Request $request): JsonResponse
    {
        $ended = Sessions::endOthers($request->user(), $request->session()->getId());
        Noteworthy::dispatch('other-sessions-ended', $request->user()->id, about: ['ended' => $ended]);

        return new JsonResponse(['ended' => $ended]);
    }

    private function knows(Request $request, string $password): bool
    {
        $tries = ['sign_in_account' => "password of {$request->user()->id}"];
        $this->tries->count($tries);
        $knows = Hash::check($password, $request->user()->password);
        $knows && $this->tries->giveBack($tries);

        return $knows;
    }
}
