<?php

namespace App\Http\Controllers;

use App\Changes\Move;
use App\Dialects\Dialects;
use App\Http\Problem;
use App\Http\Requests\KeepMappingRequest;
use App\Http\Requests\ReadSheetRequest;
use App\Http\Requests\WriteSheetRequest;
use App\Jobs\ApplyChange;
use App\Models\Change;
use App\Models\Client;
use App\Models\Mapping;
use App\Models\WriteState;
use App\Sheets\ChangeSheet;
use App\Sheets\Sheet;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Vestigon\Core\Document\UnusableInput;

/** Changes that go out as sheets, and how a platform's sheets name their columns. */
final class SheetController
{
    public function mappings(Client $client): JsonResponse
    {
        return new JsonResponse([
            'items' => Mapping::query()
                ->where('client_id', $client->id)
                ->orderBy('name')
                ->get()
                ->map->told()
                ->all(),
        ]);
    }

    public function keep(KeepMappingRequest $request, Client $client, Dialects $dialects): JsonResponse
    {
        $wanted = $request->validated();
        if ($dialects->find($client->id, $wanted['dialect']) === null) {
            return Problem::response(422, "There is no platform \"{$wanted['dialect']}\".");
        }
        $columns = array_filter(
            array_map(static fn (?string $c): string => trim((string) $c), $wanted['columns']),
            strlen(...),
        );
        if (count(array_unique($columns)) !== count($columns)) {
            return Problem::response(422, 'Two columns have the same heading. Each needs its own.');
        }

        return new JsonResponse(
            Mapping::query()
                ->create([
                    'client_id' => $client->id,
                    'name' => $wanted['name'],
                    'dialect' => $wanted['dialect'],
                    'columns' => $columns,
                ])
                ->told(),
            201,
        );
    }

    public function forget(Client $client, Mapping $mapping): JsonResponse
    {
        $mapping->delete();

        return new JsonResponse(null, 204);
    }

    /** The change as a file. */
    public function write(WriteSheetRequest $request, Client $client, Change $change): JsonResponse|BinaryFileResponse
    {
        $wanted = $request->validated();
        $mapping = $this->mapping($client, $change, (int) $wanted['mapping']);
        if ($mapping === null) {
            return Problem::response(422, 'There is no such mapping for this platform. Define one first.');
        }
        try {
            $file = (new ChangeSheet($change, $mapping))->write($wanted['as']);
        } catch (UnusableInput $e) {
            return Problem::response(422, ucfirst($e->getMessage()).'.');
        }

        return (new BinaryFileResponse($file, 200, ['Content-Type' => Sheet::KINDS[$wanted['as']]], false))
            ->setContentDisposition('attachment', "change-{$change->id}.{$wanted['as']}")
            ->deleteFileAfterSend();
    }

    /** The platform's result. When every write has its answer, the change goes on: it is read back and clicked. */
    public function read(ReadSheetRequest $request, Client $client, Change $change): JsonResponse
    {
        $wanted = $request->validated();
        $mapping = $this->mapping($client, $change, (int) $wanted['mapping']);
        $content = base64_decode($wanted['content'], true);

        return DB::transaction(function () use ($change, $mapping, $content, $wanted): JsonResponse {
            return $this->readLocked($change->locked(), $mapping, $content, $wanted['name']);
        }, 5);
    }

    /** Read by two at once, a sheet counts once: the change is locked. */
    private function readLocked(
        Change $change,
        ?Mapping $mapping,
        string|false $content,
        string $name,
    ): JsonResponse {
        $problem = match (true) {
            $mapping === null => 'There is no such mapping for this platform. Define one first.',
            $content === false => 'The file did not come whole. Choose it again.',
            ! in_array($change->status, Move::Answer->beginsIn(), true) => Move::Answer->refusal($change),
            default => null,
        };
        if ($problem !== null || $mapping === null) {
            return Problem::response(422, (string) $problem);
        }
        try {
            $result = (new ChangeSheet($change, $mapping))->read($name, (string) $content);
        } catch (UnusableInput $e) {
            return Problem::response(422, ucfirst($e->getMessage()).'.');
        }
        if (! $change->writes()->reorder()->where('state', WriteState::Sent)->exists()) {
            $change->take(Move::Answer, ['worker' => null, 'worker_until' => null]);
            ApplyChange::dispatch($change->id)->afterCommit();
        }

        return new JsonResponse($result);
    }

    private function mapping(Client $client, Change $change, int $id): ?Mapping
    {
        return Mapping::query()
            ->where(['client_id' => $client->id, 'dialect' => $change->account->dialect])
            ->find($id);
    }
}
