<?php

namespace App\Http\Controllers;

use App\Http\Requests\ReportRequest;
use App\Models\Client;
use App\Numbers\Numbers;
use App\Sheets\Files\Brought;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Str;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** Names beside the numbers of any report, and numbers beside its names. */
final readonly class NumberController
{
    public function __construct(private Numbers $numbers) {}

    public function look(ReportRequest $request, Client $client): JsonResponse
    {
        return new JsonResponse(Brought::file(
            $request->validated('content'),
            fn (string $path): array => $this->numbers->look($client, $path, ...$request->asked()),
        ));
    }

    /** The same sheet, whole, in its own form. */
    public function sheet(ReportRequest $request, Client $client): BinaryFileResponse
    {
        $file = Brought::file(
            $request->validated('content'),
            fn (string $path): array => $this->numbers->sheet($client, $path, ...$request->asked()),
        );
        $plain = (string) preg_replace('/[^\x20-\x7E]/', '_', Str::ascii($file['name']));

        return (new BinaryFileResponse($file['path'], 200, ['Content-Type' => $file['type']]))
            ->setContentDisposition('attachment', $file['name'], $plain)
            ->deleteFileAfterSend();
    }
}
