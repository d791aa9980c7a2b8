<?php

namespace App\Http\Controllers;

use App\Http\Requests\LinksRequest;
use App\Http\Requests\NamedFileRequest;
use App\Links\LinkSheet;
use App\Links\Looking;
use App\Models\Client;
use App\Sheets\Files\Opening;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Vestigon\Core\Document\UnusableInput;

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
        $bytes = base64_decode($content, true);
        if ($bytes === false) {
            throw new UnusableInput('The file did not come whole. Choose it again.');
        }
        $path = (string) tempnam(sys_get_temp_dir(), 'links');
        file_put_contents($path, $bytes);
        try {
            $rows = LinkSheet::rows(Opening::tables($path, $name)[0], Looking::by($client)->keys(), LinksRequest::MOST);
        } finally {
            array_map(unlink(...), glob("{$path}*") ?: []);
        }

        return new JsonResponse($rows);
    }
}
