<?php

namespace App\Http\Controllers;

use App\Http\Problem;
use App\Http\Requests\SiteFileRequest;
use App\Jobs\ReadLog;
use App\Models\Client;
use App\Models\Collector;
use App\Models\LogFile;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\File;

/** Logs of web servers and sheets of orders, put in for a site. */
final class LogFileController
{
    private const SHOWN = 10;

    public function index(Client $client, Collector $collector): JsonResponse
    {
        return new JsonResponse([
            'items' => $collector->logFiles()->latest('id')->limit(self::SHOWN)->get()->map(self::told(...))->all(),
        ]);
    }

    public function store(SiteFileRequest $request, Client $client, Collector $collector): JsonResponse
    {
        if (! $collector->isOurs()) {
            return Problem::response(422, 'This is an analytics that is read. Put files in for a site of your own.');
        }
        $content = base64_decode($request->validated('content'), true);
        if ($content === false) {
            return Problem::response(422, 'The file did not come whole. Choose it again.');
        }
        $file = $collector->logFiles()->create([
            'name' => $request->validated('name'),
            'kind' => $request->validated('kind') ?? 'log',
            'bytes' => strlen($content),
            'came_at' => now(),
            'state' => 'waiting',
        ]);
        File::ensureDirectoryExists(dirname($file->path()));
        file_put_contents($file->path(), $content);
        ReadLog::dispatch($file->id);

        return new JsonResponse(self::told($file->refresh()), 201);
    }

    /** @return array<string, mixed> */
    private static function told(LogFile $file): array
    {
        return [
            'id' => $file->id,
            'name' => $file->name,
            'kind' => $file->kind,
            'bytes' => $file->bytes,
            'cameAt' => $file->came_at->toIso8601ZuluString(),
            'state' => $file->state,
            'lines' => $file->lines,
            'taken' => $file->taken,
            'leftOut' => (object) ($file->left_out ?? []),
            'problem' => $file->problem,
        ];
    }
}
