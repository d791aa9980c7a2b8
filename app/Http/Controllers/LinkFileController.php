<?php

namespace App\Http\Controllers;

use App\Http\Requests\LinksRequest;
use App\Http\Requests\NamedFileRequest;
use App\Links\LinkSheet;
use App\Links\Looking;
use App\Models\Client;
use App\Sheets\Files\Brought;
use App\Sheets\Files\Opening;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** Links out as a sheet, and rows of one in. */
final readonly class LinkFileController
{
    public function __construct(private LinkSheet $sheet) {}

    public function out(Request $request, Client $client): BinaryFileResponse
    {
        $kind = $request->validate(['kind' => 'required|in:csv,xlsx'])['kind'];
        $file = $this->sheet->file($client, $kind);

        return (new BinaryFileResponse($file['path'], 200, ['Content-Type' => $file['type']]))
            ->setContentDisposition('attachment', $file['name'])
            ->deleteFileAfterSend();
    }

    /** The rows of a sheet as links that could be made; nothing is made by it. */
    public function in(NamedFileRequest $request, Client $client): JsonResponse
    {
        ['name' => $name, 'content' => $content] = $request->validated();
        $keys = Looking::by($client)->keys();
        $rows = Brought::file(
            $content,
            static fn (string $path): array => LinkSheet::rows(
                Opening::tables($path, $name)[0],
                $keys,
                LinksRequest::MOST,
            ),
        );

        return new JsonResponse($rows);
    }
}
