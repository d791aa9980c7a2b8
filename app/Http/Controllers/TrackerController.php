<?php

namespace App\Http\Controllers;

use App\Events\Noteworthy;
use App\Http\Problem;
use App\Http\Requests\NamedFileRequest;
use App\Http\Requests\TrackerRequest;
use App\Http\Requests\TryTrackerRequest;
use App\Http\Resources\TrackerView;
use App\Jobs\ProveAccount;
use App\Models\Client;
use App\Models\Tracker;
use App\Sheets\Files\Brought;
use App\Trackers\HopCounts;
use App\Trackers\Suggestions;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Trace\Trail;
use Vestigon\Core\Url\Query;

/** The click trackers that a client's clicks pass: told, tried, suggested. */
final class TrackerController
{
    public function index(Client $client): JsonResponse
    {
        return new JsonResponse([
            'items' => TrackerView::collection($client->trackers()->counted()->orderBy('host')->get()),
            'suggested' => (new Suggestions($client))->all(),
        ]);
    }

    public function store(TrackerRequest $request, Client $client): JsonResponse
    {
        $tracker = DB::transaction(static function () use ($request, $client): Tracker {
            $tracker = $client->trackers()->create($request->columns());
            Noteworthy::dispatch('tracker-told', $request->user()->id, $client->id, ['host' => $tracker->host]);

            return $tracker;
        });
        ProveAccount::each($client->accounts()); // what is proven depends on where clicks come out

        return new JsonResponse(new TrackerView(Tracker::query()->counted()->findOrFail($tracker->id)), 201);
    }

    public function update(TrackerRequest $request, Client $client, Tracker $tracker): JsonResponse
    {
        $isSaved = DB::transaction(static function () use ($request, $client, $tracker): bool {
            $columns = (new Tracker())->forceFill($request->columns())->getAttributes();
            $isSaved =
                Tracker::query()
                    ->whereKey($tracker->id)
                    ->where('revision', (int) $request->validated('revision'))
                    ->update([...$columns, 'revision' => DB::raw('revision + 1')]) === 1;
            if ($isSaved) {
                Noteworthy::dispatch('tracker-changed', $request->user()->id, $client->id, [
                    'host' => $request->validated('host'),
                ]);
            }

            return $isSaved;
        });
        if (! $isSaved) {
            return Problem::response(
                409,
                'Somebody else has saved this tracker since you opened it. What you typed is still here: look at '
                    .'theirs, then save again.',
            );
        }
        ProveAccount::each($client->accounts()); // what is proven depends on where clicks come out

        return new JsonResponse(new TrackerView(Tracker::query()->counted()->findOrFail($tracker->id)));
    }

    public function destroy(Request $request, Client $client, Tracker $tracker): JsonResponse
    {
        DB::transaction(static function () use ($request, $client, $tracker): void {
            $tracker->delete();
            Noteworthy::dispatch('tracker-removed', $request->user()->id, $client->id, ['host' => $tracker->host]);
        });
        ProveAccount::each($client->accounts()); // what is proven depends on where clicks come out

        return new JsonResponse(null, 204);
    }

    /** A sheet that says how many clicks it sent on, by day. */
    public function counts(NamedFileRequest $request, Client $client, Tracker $tracker, HopCounts $counts): JsonResponse
    {
        $told = Brought::file(
            $request->validated('content'),
            fn (string $path): array => $counts->bring($tracker, $path, $request->validated('name')),
        );

        return new JsonResponse([...$told, 'leftOut' => (object) $told['leftOut']]);
    }

    /** Where a URL leads through the tracker as it is being written, and the client's others. */
    public function tryOut(TryTrackerRequest $request, Client $client): JsonResponse
    {
        $wanted = $request->validated();
        $tried = new Tracker([
            'host' => strtolower((string) $wanted['host']),
            'parameter' => (string) $wanted['parameter'],
            'forwards' => $wanted['forwards'],
            'adds' => array_values(
                array_map(
                    static fn (array $a): array => ['key' => (string) $a['key'], 'text' => (string) $a['text']],
                    array_filter($wanted['adds'], static fn (array $a): bool => ($a['key'] ?? '') !== ''),
                ),
            ),
        ]);
        $others = $client->trackers()->where('host', '<>', $tried->host)->get();
        $trail = Trail::through([$tried->hop(), ...$others->map->hop()->all()])->from($wanted['url']);
        [$end] = $trail[count($trail) - 1];

        return new JsonResponse([
            'trail' => array_map(
                static fn (array $s): array => ['url' => $s[0], 'stop' => $s[1]->value],
                $trail,
            ),
            'arrival' => Query::read($end),
        ]);
    }
}
