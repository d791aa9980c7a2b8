<?php

namespace App\Http\Controllers;

use App\Events\Noteworthy;
use App\Http\Problem;
use App\Jobs\SendInvitation;
use App\Models\Client;
use App\Models\Invitation;
use App\Models\Role;
use App\Models\User;
use App\SignIn\Email;
use App\SignIn\Invitations;
use App\SignIn\Tries;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rules\Enum;

/** People come in by a link: it is made, looked at, and used once. */
final class InvitationController
{
    private const WORN = 'This link is not good any more: it has been used, taken back, or is too old. Ask for a '
        .'new one.';

    public function __construct(private readonly Invitations $invitations, private readonly Tries $tries) {}

    /** What a link is for. */
    public function look(Request $request): JsonResponse
    {
        $invitation = $this->invitations->find($this->token($request));

        return $invitation === null
            ? Problem::response(404, self::WORN)
            : new JsonResponse([
                'client' => $invitation->client?->name,
                'role' => $invitation->role,
                'email' => $invitation->email,
                'by' => $invitation->by?->name,
            ]);
    }

    /** Somebody new comes in. */
    public function accept(Request $request): JsonResponse
    {
        $token = $this->token($request);
        $typed = $request->validate([
            'name' => 'required|string|max:100',
            'email' => 'required|string|email|max:255',
            'password' => ['required', 'string', PersonController::password()],
        ]);
        $email = Email::normal($typed['email']);
        $invitation = $this->invitations->find($token);
        $why = match (true) {
            $invitation === null => [404, self::WORN],
            $invitation->email !== null && $invitation->email !== $email => [
                422,
                "This link is for {$invitation->email}.",
            ],
            User::query()->where('email', $email)->exists() => [
                409,
                'There is an account for this address already. Sign in with it, then open this link again.',
            ],
            default => null,
        };
        if ($why !== null) {
            return Problem::response(...$why);
        }
        $user = $this->invitations->use(
            $token,
            static fn (Invitation $i): User => User::query()->create([
                'name' => $typed['name'],
                'email' => $email,
                'password' => $typed['password'],
                'founder' => $i->client_id === null,
            ]),
        );
        if ($user === null) {
            return Problem::response(404, self::WORN);
        }
        Noteworthy::dispatch('came-in', $user->id, $invitation?->client_id);

        return new JsonResponse(['message' => 'You are in. Sign in with the password that you have just chosen.'], 201);
    }

    /** Somebody who is here already becomes a member of one more client. */
    public function join(Request $request): JsonResponse
    {
        $token = $this->token($request);
        $user = $request->user();
        $invitation = $this->invitations->find($token);
        $why = match (true) {
            $invitation?->client === null => [404, self::WORN],
            $invitation->email !== null && $invitation->email !== $user->email => [
                422,
                "This link is for {$invitation->email}, and you are signed in as {$user->email}.",
            ],
            default => null,
        };
        if ($why !== null || $this->invitations->use($token, static fn (): User => $user) === null) {
            return Problem::response(...($why ?? [404, self::WORN]));
        }

        return new JsonResponse(['slug' => $invitation->client->slug]);
    }

    public function store(Request $request, Client $client): JsonResponse
    {
        $typed = $request->validate([
            'email' => 'required|string|email|max:255',
            'role' => ['required', new Enum(Role::class)],
        ]);
        $email = Email::normal($typed['email']);
        if ($client->members()->where('email', $email)->exists()) {
            return Problem::response(422, "{$email} is a member already. Change the role in the list.");
        }
        $client->invitations()->open()->where('email', $email)->delete();
        [$invitation, $link] = $this->invitations->make(
            $client,
            $request->user(),
            $email,
            Role::from($typed['role']),
        );
        SendInvitation::dispatch($invitation->id, $link);
        Noteworthy::dispatch('invited', $request->user()->id, $client->id, [
            'email' => $email,
            'role' => $typed['role'],
        ]);

        return new JsonResponse(['id' => $invitation->id, 'link' => $link], 201);
    }

    public function destroy(Request $request, Client $client, Invitation $invitation): JsonResponse
    {
        $invitation->delete();
        Noteworthy::dispatch('invitation-taken-back', $request->user()->id, $client->id, [
            'email' => $invitation->email,
        ]);

        return new JsonResponse(null, 204);
    }

    private function token(Request $request): string
    {
        $this->tries->count(['invitation_address' => (string) $request->ip()]);

        return (string) $request->validate(['token' => 'required|string|max:100'])['token'];
    }
}
