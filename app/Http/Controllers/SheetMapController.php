<?php

namespace App\Http\Controllers;

use App\Dialects\Dialects;
use App\Http\Problem;
use App\Http\Requests\KeepSheetMapRequest;
use App\Http\Requests\SuggestSheetMapRequest;
use App\Http\Resources\ColumnWords;
use App\Models\Client;
use App\Models\SheetMap;
use Illuminate\Http\JsonResponse;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\SheetMap as Map;
use Vestigon\Core\Sheet\SheetMapReader;
use Vestigon\Core\Sheet\Suggestion;

/** What columns of platforms' sheets mean: kept for the next time, and handed on as files. */
final class SheetMapController
{
    public function index(Client $client): JsonResponse
    {
        return new JsonResponse([
            'items' => $client
                ->sheetMaps()
                ->latest('updated_at')
                ->latest('id')
                ->limit(200)
                ->get()
                ->map(self::told(...))
                ->all(),
        ]);
    }

    /** The map as a file. */
    public function show(Client $client, SheetMap $sheetMap): JsonResponse
    {
        return new JsonResponse(
            ['title' => $sheetMap->title] + $sheetMap->document,
            200,
            [
                'Content-Disposition' => HeaderUtils::makeDisposition(
                    'attachment',
                    'map-'.((string) preg_replace('/[^\w.-]+/', '-', $sheetMap->title) ?: $sheetMap->id).'.json',
                ),
            ],
            JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
        );
    }

    /** What columns might mean, by their headings alone. */
    public function suggest(SuggestSheetMapRequest $request, Client $client, Dialects $dialects): JsonResponse
    {
        $wanted = $request->validated();
        $dialect = $dialects->find($client->id, $wanted['dialect']);
        if ($dialect === null) {
            return self::unknown($wanted['dialect']);
        }
        $suggested = (new Suggestion($dialect))->of('', [array_values($wanted['headings'])], 0);
        $words = ColumnWords::of($dialect);

        return new JsonResponse([
            'words' => ['switches' => (object) $words['switches']] + $words,
            'level' => $suggested?->level,
            'rowKind' => $suggested?->rowKind?->heading,
            'columns' => array_map(ColumnWords::column(...), $suggested->columns ?? []),
        ]);
    }

    /** Keeps a map; one of the same title and platform is replaced. */
    public function store(KeepSheetMapRequest $request, Client $client, Dialects $dialects): JsonResponse
    {
        $wanted = $request->validated();
        $dialect = $dialects->find($client->id, $wanted['dialect']);
        if ($dialect === null) {
            return self::unknown($wanted['dialect']);
        }
        $document = ['format' => Map::FORMAT]
            + array_filter(
                $request->json()->all(),
                static fn (string $k): bool => in_array($k, Map::KEYS, true),
                ARRAY_FILTER_USE_KEY,
            );
        try {
            SheetMapReader::read(new Cursor($document), $dialect);
        } catch (UnusableInput $e) {
            return Problem::response(422, ucfirst($e->getMessage()).'.');
        }
        $kept = $client
            ->sheetMaps()
            ->updateOrCreate(
                ['dialect' => $dialect->id, 'title' => $wanted['title']],
                ['document' => $document, 'user_id' => $request->user()?->id],
            );

        return new JsonResponse(self::told($kept), 201);
    }

    public function destroy(Client $client, SheetMap $sheetMap): JsonResponse
    {
        $sheetMap->delete();

        return new JsonResponse(null, 204);
    }

    private static function unknown(string $dialect): JsonResponse
    {
        return Problem::response(422, "There is no platform \"{$dialect}\".");
    }

    /** @return array<string, mixed> */
    private static function told(SheetMap $map): array
    {
        return [
            'id' => $map->id,
            'title' => $map->title,
            'dialect' => $map->dialect,
            'tables' => array_map(
                static fn (array $t): array => [
                    'title' => $t['title'] ?? '',
                    'headings' => [
                        ...isset($t['rowKind']) ? [$t['rowKind']['column']] : [],
                        ...array_column($t['columns'], 'heading'),
                    ],
                ],
                $map->document['tables'],
            ),
            'updatedAt' => $map->updated_at?->toIso8601String(),
        ];
    }
}
