<?php

namespace App\Http\Controllers;

use App\Arrivals\Receiving;
use App\Models\Collector;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** The address that servers hand conversions in at, and what was taken back; by a token, from anywhere. */
final readonly class RecordController
{
    public function __construct(private Receiving $receiving) {}

    public function __invoke(Request $request, string $key): JsonResponse
    {
        $collector = Collector::query()->where('key', $key)->with('client')->first();
        $token = (string) $request->bearerToken();
        if ($collector?->token_hash === null || ! hash_equals($collector->token_hash, hash('sha256', $token))) {
            return new JsonResponse(
                ['message' => 'The site\u{2019}s token is wanted, as Authorization: Bearer.'],
                401,
            );
        }
        if (strlen($request->getContent()) > config('limits.record_bytes')) {
            $this->receiving->refuse($collector, 'too-large');

            return new JsonResponse(['message' => 'That is too much at once. Hand it in in parts.'], 413);
        }
        $told = $this->receiving->handedIn($collector, json_decode($request->getContent(), true, 16));

        return new JsonResponse(
            ['refused' => (object) $told['refused']] + $told,
            $told['refused'] === [] ? 202 : 422,
        );
    }
}
