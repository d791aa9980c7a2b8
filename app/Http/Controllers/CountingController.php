<?php

namespace App\Http\Controllers;

use App\Events\Noteworthy;
use App\Http\Requests\CountingRequest;
use App\Models\Client;
use App\Watching\Settings;
use App\Watching\Touched;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;

/** How what arrives is counted: what conversions count for, what hosts are called that people come from. */
final class CountingController
{
    public function show(Client $client): JsonResponse
    {
        return new JsonResponse(Settings::of($client)->toArray());
    }

    /** What has arrived so far is counted anew by it. */
    public function update(CountingRequest $request, Client $client): JsonResponse
    {
        $before = Settings::of($client)->toArray();
        $now = DB::transaction(static function () use ($request, $client, $before): array {
            $client->update(['watching' => $request->validated()]);
            $now = Settings::of($client)->toArray();
            foreach (['attribution', 'referrers', 'stations'] as $counted) {
                if ($before[$counted] !== $now[$counted]) {
                    Touched::all($client->id, '1970-01-01');
                    break;
                }
            }

            return $now;
        });
        Noteworthy::dispatch('counting-changed', $request->user()->id, $client->id, [
            'before' => $before,
            'now' => $now,
        ]);

        return new JsonResponse($now);
    }
}
