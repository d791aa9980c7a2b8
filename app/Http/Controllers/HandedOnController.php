<?php

namespace App\Http\Controllers;

use App\Jobs\FetchFeed;
use App\Models\Feed;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** Where product lists are handed on, to whoever knows the address; and where a shop says that its list has changed. */
final class HandedOnController
{
    private const AWAY_SECONDS = 60;

    private const TYPES = [
        'xml' => 'application/xml; charset=utf-8',
        'csv' => 'text/csv; charset=utf-8',
        'tsv' => 'text/tab-separated-values; charset=utf-8',
        'ndjson' => 'application/x-ndjson',
    ];

    public function show(Request $request, string $secret, string $ending): Response|BinaryFileResponse
    {
        $feed = Feed::query()->where(['secret' => $secret, 'ending' => $ending])->first();
        if ($feed?->out_digest === null) {
            return new Response('There is no such list.', 404, ['Content-Type' => 'text/plain']);
        }
        if (! is_file($feed->outPath())) {
            FetchFeed::dispatchIf($feed->address !== null, $feed->id);

            return new Response('The list is not there just now.', 503, [
                'Content-Type' => 'text/plain',
                'Retry-After' => (string) self::AWAY_SECONDS,
            ]);
        }
        $packs = in_array('gzip', $request->getEncodings(), true);
        $answer = new BinaryFileResponse($feed->outPath().($packs ? '.gz' : ''), 200, [
            'Content-Type' => self::TYPES[$ending],
            'Vary' => 'Accept-Encoding',
            'Cache-Control' => 'private, no-cache',
            ...$packs ? ['Content-Encoding' => 'gzip'] : [],
        ]);
        // another tag for each of the two: RFC 9110, section 8.8.3.3
        $answer->setEtag($feed->out_digest.($packs ? '-gz' : ''));
        $answer->setLastModified($feed->out_at);
        $answer->isNotModified($request);

        return $answer;
    }

    public function again(string $call): JsonResponse
    {
        $feed = Feed::query()->where('call', $call)->whereNotNull('address')->first();
        if ($feed === null) {
            return new JsonResponse(['message' => 'There is no such list.'], 404);
        }
        FetchFeed::dispatch($feed->id);

        return new JsonResponse(['message' => 'It is fetched.'], 202);
    }
}
