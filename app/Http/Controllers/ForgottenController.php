<?php

namespace App\Http\Controllers;

use App\Events\Noteworthy;
use App\Http\Problem;
use App\Jobs\SendPasswordReset;
use App\Models\User;
use App\SignIn\Email;
use App\SignIn\Sessions;
use App\SignIn\Tries;
use Illuminate\Auth\Passwords\PasswordBroker;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Password;

/** A forgotten password: a link by mail, and another password with it. */
final class ForgottenController
{
    public function __construct(private readonly Tries $tries) {}

    /**
     * The same answer, and the same work, whoever asks for whom: whether there is such an account, the job finds out.
     */
    public function ask(Request $request): JsonResponse
    {
        $email = Email::normal($request->validate(['email' => 'required|string|max:255'])['email']);
        $this->tries->count(['reset_account' => $email, 'reset_address' => (string) $request->ip()]);
        SendPasswordReset::dispatch($email);

        return new JsonResponse(
            [
                'message' => 'If there is an account for this address, a link is on its way to it. It is good for '
                    .config('limits.reset_link')
                    .' minutes.',
            ],
            202,
        );
    }

    public function reset(Request $request): JsonResponse
    {
        $typed = $request->validate([
            'email' => 'required|string|max:255',
            'token' => 'required|string|max:255',
            'password' => ['required', 'string', PersonController::password()],
        ]);
        $email = Email::normal($typed['email']);
        $this->tries->count(['reset_address' => (string) $request->ip()]);
        $status = Password::broker()->reset(
            ['email' => $email, 'token' => $typed['token'], 'password' => $typed['password']],
            static function (User $user, string $password): void {
                $user->forceFill(['password' => $password])->save();
                Sessions::endOthers($user);
                Noteworthy::dispatch('password-reset', $user->id);
            },
        );

        return $status === PasswordBroker::PASSWORD_RESET
            ? new JsonResponse(['message' => 'The password is changed. Sign in with it.'])
            : Problem::response(
                422,
                'This link is not good any more, or is for another address. Ask for a new one.',
            );
    }
}
