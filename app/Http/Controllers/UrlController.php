<?php

namespace App\Http\Controllers;

use App\Feeds\Explaining;
use App\Http\Requests\ManyUrlsRequest;
use App\Links\Looking;
use App\Links\Origins;
use App\Models\Client;
use App\Watching\ManySenders;
use App\Watching\Senders;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** A landing URL read back. */
final readonly class UrlController
{
    public function __construct(
        private Senders $senders,
        private ManySenders $many,
        private Explaining $lists,
    ) {}

    public function senders(Request $request, Client $client): JsonResponse
    {
        $url = $request->validate(['url' => 'required|string|max:16000|regex:~^https?://~i'])['url'];

        return new JsonResponse([
            'items' => $this->senders->of($client, $url),
            'links' => array_map(Looking::brief(...), Origins::links($client, $url)),
            'lists' => $this->lists->of($client, $url),
        ]);
    }

    /** Many at once: the first ad that can have sent each, and how many can. */
    public function many(ManyUrlsRequest $request, Client $client): JsonResponse
    {
        return new JsonResponse(['items' => $this->many->of($client, $request->validated('urls'))]);
    }

    /** The same as a sheet. */
    public function sheet(ManyUrlsRequest $request, Client $client): BinaryFileResponse
    {
        $kind = $request->validated('kind') ?? 'xlsx';
        $file = $this->many->sheet($client, $request->validated('urls'), $kind);

        return (new BinaryFileResponse($file['path'], 200, ['Content-Type' => $file['type']]))
            ->setContentDisposition('attachment', $file['name'])
            ->deleteFileAfterSend();
    }
}
