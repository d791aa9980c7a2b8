<?php

namespace Database\Factories;

use App\Models\Client;
use App\Models\Role;
use App\Models\User;
use Illuminate\Database\Eloquent\Factories\Factory;
use Illuminate\Support\Str;

/** @extends Factory<User> */
final class UserFactory extends Factory
{
    protected $model = User::class;

    /** @return array<string, mixed> */
    public function definition(): array
    {
        return [
            'name' => 'Somebody',
            'email' => Str::lower(Str::random(12)).'@saltmarsh.example',
            'password' => 'tide-table',
        ];
    }

    public function memberOf(Client $client, Role $role): self
    {
        return $this->state(['name' => "A {$role->value}"])->hasAttached($client, ['role' => $role->value]);
    }
}
