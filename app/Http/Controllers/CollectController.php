<?php

namespace App\Http\Controllers;

use App\Arrivals\KnownPrograms;
use App\Arrivals\Receiving;
use App\Arrivals\Sites;
use App\Collecting\KnownSites;
use App\Models\Collector;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Vestigon\Core\Watch\Hosts;

/** The address that pages report to, from the site's own origins only. */
final readonly class CollectController
{
    public function __construct(
        private Receiving $receiving,
        private Sites $sites,
        private KnownPrograms $programs,
    ) {}

    public function __invoke(Request $request, string $key): JsonResponse
    {
        $collector = Collector::query()->where('key', $key)->with('client')->first();
        if ($collector === null) {
            return new JsonResponse(['message' => 'No site reports by this key.'], 404);
        }
        $origin = (string) $request->headers->get('Origin', '');
        if (! Hosts::isOneOf($collector->hosts ?? [], Hosts::of($origin))) {
            $this->receiving->refuse($collector, 'foreign-origin');

            return new JsonResponse(['message' => 'Only pages of the site itself report by this key.'], 403);
        }
        $allowed = ['Access-Control-Allow-Origin' => $origin, 'Vary' => 'Origin'];
        if ($this->programs->isOne((string) $request->userAgent())) {
            $this->receiving->refuse($collector, 'program');

            return new JsonResponse(['taken' => 0, 'refused' => ['program' => 1]], 422, $allowed);
        }
        $announced = (int) $request->headers->get('Content-Length', '0');
        $most = config('limits.collect_bytes');
        if (max($announced, $announced > $most ? 0 : strlen($request->getContent())) > $most) {
            $this->receiving->refuse($collector, 'too-large');

            return new JsonResponse(['message' => 'At most 64 kB can be reported at once.'], 413, $allowed);
        }
        $site = $this->sites->of($collector);
        $told = $this->receiving->take($collector, $site, json_decode($request->getContent(), true, 16));
        KnownSites::keep($key, $site);

        return new JsonResponse(
            ['refused' => (object) $told['refused']] + $told,
            $told['refused'] === [] ? 202 : 422,
            $allowed,
        );
    }
}
