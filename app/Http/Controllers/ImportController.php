<?php

namespace App\Http\Controllers;

use App\Changes\Telling;
use App\Http\Problem;
use App\Http\Requests\ScheduleRequest;
use App\Models\ChangeStatus;
use App\Models\Client;
use App\Models\Connection;
use App\Models\Import;
use App\Models\ImportStatus;
use App\Models\OutsideChange;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

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
                        'address' => $c->address,
                        'importedAt' => $c->imported_at?->toIso8601String(),
                        'schedule' => self::scheduled($c),
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
        $import = Import::begin($connection, $request->user()->id);
        if ($import === null) {
            return Problem::response(
                409,
                "An import from {$connection->title} is running already. Its progress is at the top of the page.",
            );
        }

        return new JsonResponse($import->fresh(['link'])?->summary(), 202);
    }

    /** Sets how often imports begin by themselves. */
    public function schedule(ScheduleRequest $request, Client $client, Connection $connection): JsonResponse
    {
        $wanted = $request->validated();
        if ($connection->reads_by === 'sheet' && $wanted['everyHours'] !== null) {
            return Problem::response(
                422,
                "{$connection->title} comes by sheet: somebody brings it, it can't be fetched by itself.",
            );
        }
        $connection->fill([
            'every_hours' => $wanted['everyHours'],
            'quiet_from' => $wanted['quietFrom'],
            'quiet_until' => $wanted['quietUntil'],
        ]);
        $connection->forceFill(['next_at' => $connection->next(now()->toImmutable())])->save();

        return new JsonResponse(self::scheduled($connection));
    }

    /** @return array<string, mixed> */
    private static function scheduled(Connection $connection): array
    {
        return [
            'everyHours' => $connection->every_hours,
            'quietFrom' => $connection->quiet_from,
            'quietUntil' => $connection->quiet_until,
            'nextAt' => $connection->next_at?->toIso8601String(),
        ];
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

        $outside = OutsideChange::counts($client->accounts()->pluck('id')->all());

        return new JsonResponse([
            'imports' => $imports->all(),
            'changes' => $changes->all(),
            'outside' => [
                'open' => array_sum(array_column($outside, 'open')),
                'breaking' => array_sum(array_column($outside, 'breaking')),
            ],
        ]);
    }
}
