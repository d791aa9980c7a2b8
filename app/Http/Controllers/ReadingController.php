<?php

namespace App\Http\Controllers;

use App\Http\Problem;
use App\Http\Requests\ReadingRequest;
use App\Jobs\ReadAsMeant;
use App\Meant\HealSheet;
use App\Models\Client;
use App\Models\Reading;
use App\Models\ReadingStatus;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** Results read as they were meant: beginning it, how far it is, and what it has healed. */
final class ReadingController
{
    /** Those that are kept of a client: the latest. */
    private const KEPT = 3;

    /** One that is there for these days, and no older than an hour, is not begun again. */
    private const FRESH = 3600;

    public function store(ReadingRequest $request, Client $client): JsonResponse
    {
        ['from' => $from, 'to' => $to, 'names' => $names] = $request->validated();
        if ($client->lastPlan() === null) {
            return Problem::response(422, 'There is no plan yet: what was meant is what it says. Save one under Plan.');
        }
        [$reading, $isNew] = DB::transaction(static function () use ($request, $client, $from, $to, $names): array {
            // of two at once the second sees the first
            Client::query()->whereKey($client->id)->lockForUpdate()->first();
            $there = $client->readings()
                ->where(['from_day' => $from, 'to_day' => $to, 'names' => $names])
                ->where('status', '<>', ReadingStatus::Failed)
                ->where('created_at', '>', now()->subSeconds(self::FRESH))
                ->latest('id')
                ->first();

            return $there === null
                ? [
                    $client->readings()->create([
                        'user_id' => $request->user()?->id,
                        'from_day' => $from,
                        'to_day' => $to,
                        'names' => $names,
                        'status' => ReadingStatus::Queued,
                    ]),
                    true,
                ]
                : [$there, false];
        });
        if ($isNew) {
            $client->readings()
                ->latest('id')
                ->skip(self::KEPT)
                ->take(100)
                ->get()
                ->filter(static fn (Reading $old): bool => $old->status !== ReadingStatus::Running)
                ->each(static fn (Reading $old) => $old->drop());
            ReadAsMeant::dispatch($reading->id);
        }

        return new JsonResponse(self::told($reading->refresh()), 202);
    }

    public function show(Client $client, Reading $reading): JsonResponse
    {
        return new JsonResponse(self::told($reading));
    }

    /** What arrived and what was meant, by key: for other tools. */
    public function file(Request $request, Client $client, Reading $reading): BinaryFileResponse
    {
        $kind = $request->validate(['kind' => 'in:csv,xlsx'])['kind'] ?? 'csv';
        $file = HealSheet::file($reading, $kind);

        return (new BinaryFileResponse($file['path'], 200, ['Content-Type' => $file['type']]))
            ->setContentDisposition('attachment', $file['name'])
            ->deleteFileAfterSend();
    }

    /** @return array<string, mixed> */
    private static function told(Reading $reading): array
    {
        return [
            'id' => $reading->id,
            'from' => $reading->from_day,
            'to' => $reading->to_day,
            'names' => $reading->names,
            'status' => $reading->status->value,
            'done' => $reading->done,
            'total' => $reading->total,
            'views' => $reading->views,
            'healed' => $reading->healed,
            'unknown' => $reading->unknown,
            'problem' => $reading->problem,
        ];
    }
}
