<?php

namespace App\Http\Controllers;

use App\Http\Problem;
use App\Models\Client;
use App\Models\Invitation;
use App\Models\Membership;
use App\Models\Role;
use App\Models\User;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\Rules\Enum;

/** A client's members, their roles, and who is invited. */
final class PeopleController
{
    public function index(Client $client): JsonResponse
    {
        return new JsonResponse([
            'members' => $client
                ->members()
                ->orderBy('name')
                ->get()
                ->map(
                    static fn (User $u): array => [
                        'id' => $u->id,
                        'name' => $u->name,
                        'email' => $u->email,
                        'role' => $u->pivot->role,
                        'secondFactor' => $u->second_factor !== null,
                    ],
                )
                ->all(),
            'invited' => $client
                ->invitations()
                ->open()
                ->with('by')
                ->orderBy('id')
                ->get()
                ->map(
                    static fn (Invitation $i): array => [
                        'id' => $i->id,
                        'email' => $i->email,
                        'role' => $i->role,
                        'by' => $i->by?->name,
                        'until' => $i->expires_at->toIso8601String(),
                    ],
                )
                ->all(),
        ]);
    }

    public function update(Request $request, Client $client, User $member): JsonResponse
    {
        $role = Role::from($request->validate(['role' => ['required', new Enum(Role::class)]])['role']);

        return $this->keepingAnOwner(
            $client,
            $member,
            $role,
            static fn (Membership $m) => $m->update(['role' => $role->value]),
        );
    }

    public function destroy(Client $client, User $member): JsonResponse
    {
        return $this->keepingAnOwner($client, $member, null, static fn (Membership $m) => $m->delete());
    }

    /**
     * A client always has an owner: of two who leave at once, the second is kept.
     *
     * @param Role|null $becomes null: no member any more
     * @param \Closure(Membership): mixed $change
     */
    private function keepingAnOwner(Client $client, User $member, ?Role $becomes, \Closure $change): JsonResponse
    {
        return DB::transaction(function () use ($client, $member, $becomes, $change): JsonResponse {
            Client::query()->whereKey($client->id)->lockForUpdate()->first();
            $memberships = Membership::query()->where('client_id', $client->id)->get();
            $one = $memberships->firstWhere('user_id', $member->id);
            $owners = $memberships->where('role', Role::Owner->value);
            if ($one === null) {
                return Problem::response(404, 'That person is not a member any more.');
            }
            if ($becomes !== Role::Owner && $owners->count() === 1 && $owners->first()?->user_id === $member->id) {
                return Problem::response(
                    422,
                    "{$member->name} is the only owner of {$client->name}. Make another member an owner first.",
                );
            }
            $change($one);

            return $this->index($client);
        }, 5);
    }
}
