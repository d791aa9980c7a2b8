<?php

namespace App\Http\Controllers;

use App\Arrivals\EventTables;
use App\Arrivals\MappedTable;
use App\Http\Problem;
use App\Http\Requests\MapSiteFileRequest;
use App\Http\Requests\SiteFileRequest;
use App\Http\Resources\SiteFileResource;
use App\Jobs\ReadSiteFile;
use App\Models\Client;
use App\Models\Collector;
use App\Models\SiteFile;
use App\Models\SiteFileState;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\File;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\DayOrder;

/** Logs of web servers and sheets of orders or page views, put in for a site. */
final class SiteFileController
{
    private const SHOWN = 10;

    public function index(Client $client, Collector $collector): JsonResponse
    {
        return new JsonResponse([
            'items' => SiteFileResource::collection($collector->siteFiles()->latest('id')->limit(self::SHOWN)->get()),
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
        $file = $collector->siteFiles()->create([
            'name' => $request->validated('name'),
            'kind' => $request->validated('kind') ?? 'log',
            'bytes' => strlen($content),
            'came_at' => now(),
            'state' => SiteFileState::Waiting,
        ]);
        File::ensureDirectoryExists(dirname($file->path()));
        file_put_contents($file->path(), $content);
        ReadSiteFile::dispatch($file->id);

        return new JsonResponse(new SiteFileResource($file->refresh()), 201);
    }

    /** What a sheet's columns are taken to say, with its first rows as they are understood. */
    public function show(Client $client, Collector $collector, SiteFile $siteFile, EventTables $tables): JsonResponse
    {
        return $siteFile->state === SiteFileState::Asked ? self::asked($siteFile, $tables) : self::notAsked();
    }

    public function update(
        MapSiteFileRequest $request,
        Client $client,
        Collector $collector,
        SiteFile $siteFile,
        EventTables $tables,
    ): JsonResponse {
        $mapped = array_map(MappedTable::of(...), $siteFile->map ?? []);
        $told = $request->validated('tables');
        foreach ($mapped as $n => $table) {
            if (count($told) !== count($mapped) || count($told[$n]['means']) !== count($table->columns)) {
                return Problem::response(422, 'It has other tables or columns than that. Look at it again.');
            }
            $mapped[$n] = $table->told(
                $told[$n]['use'],
                $told[$n]['means'],
                $told[$n]['decimal'],
                DayOrder::tryFrom((string) $told[$n]['days']),
            );
        }
        $kept = SiteFile::query()
            ->where(['id' => $siteFile->id, 'state' => SiteFileState::Asked])
            ->update(['map' => json_encode($mapped, JSON_THROW_ON_ERROR)]);

        return $kept === 0 ? self::notAsked() : self::asked($siteFile->refresh(), $tables);
    }

    /** Takes it as it is understood now. */
    public function read(Client $client, Collector $collector, SiteFile $siteFile): JsonResponse
    {
        $used = array_filter(
            array_map(MappedTable::of(...), $siteFile->map ?? []),
            static fn (MappedTable $t): bool => $t->isUsed,
        );
        foreach ($used as $table) {
            if (($problem = $table->problem()) !== null) {
                return Problem::response(422, $problem);
            }
        }
        if ($used === []) {
            return Problem::response(422, 'None of its tables is to be read. Choose one.');
        }
        if (! $siteFile->passes(SiteFileState::Asked, SiteFileState::Waiting)) {
            return self::notAsked();
        }
        ReadSiteFile::dispatch($siteFile->id);

        return new JsonResponse(new SiteFileResource($siteFile->refresh()));
    }

    /** It is not wanted. */
    public function destroy(Client $client, Collector $collector, SiteFile $siteFile): JsonResponse
    {
        if (! $siteFile->passes(SiteFileState::Asked, SiteFileState::Failed, 'It was put away unread.')) {
            return self::notAsked();
        }
        $siteFile->letGo();

        return new JsonResponse(new SiteFileResource($siteFile->refresh()));
    }

    private static function asked(SiteFile $file, EventTables $tables): JsonResponse
    {
        try {
            return new JsonResponse([
                'file' => new SiteFileResource($file),
                'currency' => $file->collector->client->currency,
                'tables' => $tables->shown($file),
            ]);
        } catch (UnusableInput $e) {
            return Problem::response(422, "{$e->getMessage()}.");
        }
    }

    private static function notAsked(): JsonResponse
    {
        return Problem::response(409, 'Nothing is asked of this file (any more). See in the list what became of it.');
    }
}
