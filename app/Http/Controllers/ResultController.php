<?php

namespace App\Http\Controllers;

use App\Http\Requests\ResultsRequest;
use App\Models\Client;
use App\Results\Behind;
use App\Results\Export;
use App\Results\Results;
use Illuminate\Http\JsonResponse;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** What clicks brought, told by whatever is asked for. */
final readonly class ResultController
{
    /** Lines in a sheet, at the most. */
    private const MOST = 100_000;

    public function __construct(private Results $results, private Behind $behind) {}

    public function lines(ResultsRequest $request, Client $client): JsonResponse
    {
        $beside = $request->beside();

        return new JsonResponse([
            ...$this->results->of(
                $client,
                $request->question(),
                $beside,
                $request->validated('order') ?? 'sessions',
                (bool) ($request->validated('up') ?? false),
                (int) ($request->validated('limit') ?? 100),
            ),
            'beside' => $beside === null ? null : ['from' => $beside->from, 'to' => $beside->to],
        ]);
    }

    /** All lines as a sheet. */
    public function file(ResultsRequest $request, Client $client): BinaryFileResponse
    {
        $question = $request->question();
        $file = Export::file(
            $this->results->of($client, $question, null, $request->validated('order') ?? 'sessions', false, self::MOST),
            $question,
            $request->validated('kind') ?? 'csv',
        );

        return (new BinaryFileResponse($file['path'], 200, ['Content-Type' => $file['type']]))
            ->setContentDisposition('attachment', $file['name'])
            ->deleteFileAfterSend();
    }

    /** The sessions behind a line, the latest first. */
    public function sessions(ResultsRequest $request, Client $client): JsonResponse
    {
        return new JsonResponse(
            $this->behind->sessions($client, $request->question(), (int) ($request->validated('limit') ?? 100)),
        );
    }
}
