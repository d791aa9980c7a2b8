<?php

namespace App\Http\Controllers;

use App\Arrivals\Visitor;
use App\Events\Noteworthy;
use App\Models\Arrival;
use App\Models\Client;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** What is kept of somebody who has visited a site, for the one who asks: to take away, or to be forgotten. */
final readonly class VisitorController
{
    public function __construct(private Visitor $visitor) {}

    public function show(Request $request, Client $client, Arrival $arrival): JsonResponse
    {
        Noteworthy::dispatch('visitor-taken-away', $request->user()->id, $client->id);

        return (new JsonResponse($this->visitor->records($arrival)))->withHeaders([
            'Content-Disposition' => 'attachment; filename="visitor.json"',
        ]);
    }

    public function destroy(Request $request, Client $client, Arrival $arrival): JsonResponse
    {
        $records = $this->visitor->forget($arrival);
        Noteworthy::dispatch('visitor-forgotten', $request->user()->id, $client->id, ['records' => $records]);

        return new JsonResponse(['records' => $records]);
    }
}
