<?php

namespace App\Http\Controllers;

use App\Feeds\Explaining;
use App\Links\Looking;
use App\Links\Origins;
use App\Models\Client;
use App\Watching\Senders;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** A landing URL read back. */
final readonly class UrlController
{
    public function __construct(private Senders $senders, private Explaining $lists) {}

    public function senders(Request $request, Client $client): JsonResponse
    {
        $url = $request->validate(['url' => 'required|string|max:16000|regex:~^https?://~i'])['url'];

        return new JsonResponse([
            'items' => $this->senders->of($client, $url),
            'links' => array_map(Looking::brief(...), Origins::links($client, $url)),
            'lists' => $this->lists->of($client, $url),
        ]);
    }
}
