<?php

namespace App\Http\Controllers;

use App\Connectors\Connectors;
use App\Connectors\RemoteAccount;
use App\Events\Noteworthy;
use App\Http\Problem;
use App\Http\Requests\ConnectRequest;
use App\Models\Client;
use App\Models\Connection;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/** Connections to programs of one's own (adapters): tried before they are kept. */
final class ConnectionController
{
    public function store(ConnectRequest $request, Client $client, Connectors $connectors): JsonResponse
    {
        $wanted = $request->validated();
        $connection = $client->connections()->make([
            'title' => $wanted['title'],
            'dialect' => $wanted['dialect'],
            'address' => rtrim($wanted['address'], '/'),
            'credentials' => ['token' => $wanted['token']],
        ]);
        $connector = $connectors->adapter($connection);
        $accounts = $connector->accounts($connection); // throws where it does not answer as it should
        $connection->clicks = $connector->offersClicks($connection);
        DB::transaction(static function () use ($connection, $request, $client): void {
            $connection->save();
            Noteworthy::dispatch('connected', $request->user()->id, $client->id, [
                'title' => $connection->title,
                'address' => $connection->address,
            ]);
        });

        return new JsonResponse(
            [
                'id' => $connection->id,
                'accounts' => array_map(
                    static fn (RemoteAccount $a): array => [
                        'id' => $a->id,
                        'name' => $a->name,
                        'elements' => $a->nodes,
                    ],
                    $accounts,
                ),
            ],
            201,
        );
    }

    public function destroy(Request $request, Client $client, Connection $connection): JsonResponse
    {
        $accounts = $client->accounts()->where('connection_id', $connection->id)->count();
        if ($accounts > 0) {
            return Problem::response(
                409,
                "{$accounts} accounts came over {$connection->title}. What is known of them would be lost without it, "
                    .'so it stays.',
            );
        }
        DB::transaction(static function () use ($connection, $request, $client): void {
            $connection->delete();
            Noteworthy::dispatch('disconnected', $request->user()->id, $client->id, ['title' => $connection->title]);
        });

        return new JsonResponse(null, 204);
    }
}
