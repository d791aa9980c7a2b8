<?php

namespace App\Policies;

use App\Models\Client;
use App\Models\Role;
use App\Models\User;
use Illuminate\Auth\Access\Response;

/** Who may do what for a client: its members, by their roles. For all others there is no such client. */
final class ClientPolicy
{
    public function view(User $user, Client $client): Response
    {
        return self::where($user->roleAt($client), true);
    }

    /** Change the plan, import, prepare and apply changes. */
    public function edit(User $user, Client $client): Response
    {
        $role = $user->roleAt($client);

        return self::where($role, $role?->mayEdit() ?? false);
    }

    /** Say yes to others' changes. */
    public function review(User $user, Client $client): Response
    {
        $role = $user->roleAt($client);

        return self::where($role, $role?->mayReview() ?? false);
    }

    /** Make a new one. */
    public function create(User $user): Response
    {
        return $user->mayFound()
            ? Response::allow()
            : Response::deny('Only owners make clients. Ask one of them.');
    }

    public function own(User $user, Client $client): Response
    {
        $role = $user->roleAt($client);

        return self::where($role, $role === Role::Owner);
    }

    private static function where(?Role $role, bool $allows): Response
    {
        return match (true) {
            $role === null => Response::denyAsNotFound(
                'There is no such client, or you are not one of its members.',
            ),
            $allows => Response::allow(),
            default => Response::deny(
                "Your role here ({$role->value}) does not allow that. Ask an owner of the client.",
            ),
        };
    }
}
