<?php

namespace App\Http\Controllers;

use App\Events\Noteworthy;
use App\Http\Problem;
use App\Http\Requests\ShortHostRequest;
use App\Links\Redirects;
use App\Models\Client;
use App\Models\ShortHost;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Hosts of a client's own for short addresses. */
final readonly class ShortHostController
{
    public function __construct(private Redirects $redirects) {}

    public function index(Client $client): JsonResponse
    {
        return new JsonResponse([
            'own' => ShortHost::address(''),
            'items' => $client
                ->shortHosts()
                ->orderBy('host')
                ->get()
                ->map(static fn (ShortHost $h): array => ['id' => $h->id, 'host' => $h->host])
                ->all(),
        ]);
    }

    public function store(ShortHostRequest $request, Client $client): JsonResponse
    {
        $host = $client->shortHosts()->create($request->validated());
        $this->redirects->hostsChanged();
        Noteworthy::dispatch('short-host-added', $request->user()->id, $client->id, ['host' => $host->host]);

        return new JsonResponse(['id' => $host->id, 'host' => $host->host], 201);
    }

    public function destroy(Request $request, Client $client, ShortHost $shortHost): JsonResponse
    {
        if ($client->links()->withTrashed()->where('host', $shortHost->host)->whereNotNull('code')->exists()) {
            return Problem::response(422, "{$shortHost->host} has short addresses: they would lead nowhere.");
        }
        $shortHost->delete();
        $this->redirects->hostsChanged();
        Noteworthy::dispatch('short-host-removed', $request->user()->id, $client->id, ['host' => $shortHost->host]);

        return new JsonResponse(null, 204);
    }
}
