<?php

namespace App\Http\Controllers;

use App\Events\Noteworthy;
use App\Http\Requests\ClientRequest;
use App\Models\Client;
use App\Models\Role;
use App\Watching\Touched;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** Clients: made, named, and told in whose time and money they count. */
final class ClientController
{
    /** Addresses that are the application's own. */
    private const TAKEN = ['join', 'reset', 'api', 'up', 'build', 'sanctum'];

    public function show(Client $client): JsonResponse
    {
        return new JsonResponse(self::told($client));
    }

    /** A new one, of which the person is the owner. */
    public function store(ClientRequest $request): JsonResponse
    {
        $client = DB::transaction(static function () use ($request): Client {
            $wanted = $request->validated();
            $client = Client::query()->create([
                'name' => $wanted['name'],
                'slug' => self::slug($wanted['name']),
                'time_zone' => $wanted['timeZone'],
                'currency' => $wanted['currency'],
            ]);
            $request->user()->clients()->attach($client, ['role' => Role::Owner->value]);

            return $client;
        }, 5);
        Noteworthy::dispatch('client-made', $request->user()->id, $client->id, ['name' => $client->name]);

        return new JsonResponse(self::told($client), 201);
    }

    public function update(ClientRequest $request, Client $client): JsonResponse
    {
        $wanted = $request->validated();
        $before = self::told($client);
        if ($wanted['timeZone'] !== $client->time_zone) {
            Touched::all($client->id, '1970-01-01'); // its days are others
        }
        $client->update([
            'name' => $wanted['name'],
            'time_zone' => $wanted['timeZone'],
            'currency' => $wanted['currency'],
        ]);
        Noteworthy::dispatch('client-changed', $request->user()->id, $client->id, [
            'before' => $before,
            'now' => self::told($client),
        ]);

        return $this->show($client);
    }

    /** @return array<string, mixed> */
    private static function told(Client $client): array
    {
        return [
            'id' => $client->id,
            'name' => $client->name,
            'slug' => $client->slug,
            'timeZone' => $client->time_zone,
            'currency' => $client->currency,
        ];
    }

    /** What stands in addresses: the name's letters, and a number where that is taken. */
    private static function slug(string $name): string
    {
        $wanted = Str::limit(Str::slug($name), 40, '') ?: 'client';
        $slug = $wanted;
        for ($n = 2; in_array($slug, self::TAKEN, true) || Client::query()->where('slug', $slug)->exists(); $n++) {
            $slug = "{$wanted}-{$n}";
        }

        return $slug;
    }
}
