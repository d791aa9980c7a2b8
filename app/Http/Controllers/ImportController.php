<?php

namespace App\Http\Controllers;

use App\Changes\Telling;
use App\Http\Problem;
use App\Jobs\ImportAccounts;
use App\Models\ChangeStatus;
use App\Models\Client;
use App\Models\Connection;
use App\Models\Import;
use App\Models\ImportStatus;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

final class ImportController
{
    public function index(Client $client): JsonResponse
    {
        return new JsonResponse([
            'items' => $client->connections
                ->map(
                    static fn (Connection $c): array => [
                        'id' => $c->id,
                        'title' => $c->title,
                        'dialect' => $c->dialect,
                        'readsBy' => $c->reads_by,
                        'importedAt' => $c->imported_at?->toIso8601String(),
                    ],
                )
                ->all(),
            'lastImport' => $client->imports()->with('link')->latest('id')->first()?->summary(),
        ]);
    }

    public function store(Request $request, Client $client, Connection $connection): JsonResponse
    {
        if ($connection->reads_by === 'sheet') {
            return Problem::response(
                422,
                "{$connection->title} comes by sheet: bring its next export in Accounts.",
            );
        }
        $import = DB::transaction(static function () use ($client, $connection, $request): ?Import {
            // of two who start one at once, the second sees the first
            Connection::query()->whereKey($connection->id)->lockForUpdate()->first();
            $open = $client
                ->imports()
                ->where('connection_id', $connection->id)
                ->whereIn('status', ImportStatus::open())
                ->exists();

            return $open
                ? null
                : $client->imports()->create([
                    'connection_id' => $connection->id,
                    'status' => ImportStatus::Queued,
                    'user_id' => $request->user()->id,
                ]);
        }, 5);
        if ($import === null) {
            return Problem::response(
                409,
                "An import from {$connection->title} is running already. Its progress is at the top of the page.",
            );
        }
        ImportAccounts::dispatch($import->id);

        return new JsonResponse($import->fresh(['link'])?->summary(), 202);
    }

    /** All long work of the client that is going on. */
    public function running(Client $client): JsonResponse
    {
        $imports = $client->imports()->whereIn('status', ImportStatus::open())->with('link')->get()->map->summary();
        $changes = $client
            ->changes()
            ->whereIn('status', ChangeStatus::inSight())
            ->get()
            ->map(Telling::progress(...));

        return new JsonResponse(['imports' => $imports->all(), 'changes' => $changes->all()]);
    }
}
