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
use App\Sheets\OutSheets;
use App\Sheets\ResultSheets;
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
        try {
            $file = $this->cameAsSheets($change)
                ? (new OutSheets($change))->file()
                : $this->mapped($client, $change, (int) ($wanted['mapping'] ?? 0), $wanted['as'] ?? 'csv');
        } catch (UnusableInput $e) {
            return Problem::response(422, ucfirst($e->getMessage()).'.');
        }

        return (new BinaryFileResponse($file['path'], 200, ['Content-Type' => $file['type']], false))
            ->setContentDisposition('attachment', $file['name'])
            ->deleteFileAfterSend();
    }

    /**
     * @return array{path: string, name: string, type: string}
     *
     * @throws UnusableInput
     */
    private function mapped(Client $client, Change $change, int $mapping, string $as): array
    {
        $mapping =
            $this->mapping($client, $change, $mapping)
            ?? throw new UnusableInput('there is no such mapping for this platform. Define one first');

        return [
            'path' => (new ChangeSheet($change, $mapping))->write($as),
            'name' => "change-{$change->id}.{$as}",
            'type' => Sheet::KINDS[$as],
        ];
    }

    private function cameAsSheets(Change $change): bool
    {
        return $change->loadMissing('account.link')->account->link->reads_by === 'sheet';
    }

    /** The platform's result. When every write has its answer, the change goes on: it is read back and clicked. */
    public function read(ReadSheetRequest $request, Client $client, Change $change): JsonResponse
    {
        $wanted = $request->validated();
        $mapping = $this->mapping($client, $change, (int) ($wanted['mapping'] ?? 0));
        $content = base64_decode($wanted['content'], true);
        if ($content === false) {
            return Problem::response(422, 'The file did not come whole. Choose it again.');
        }

        return $this->answered(
            $change,
            fn (Change $locked): array => match (true) {
                $this->cameAsSheets($locked) => (new ResultSheets($locked))->read($wanted['name'], $content),
                $mapping === null => throw new UnusableInput(
                    'there is no such mapping for this platform. Define one first',
                ),
                default => (new ChangeSheet($locked, $mapping))->read($wanted['name'], $content),
            },
        );
    }

    /** A person says that the platform has taken all of it. */
    public function taken(Client $client, Change $change): JsonResponse
    {
        return $this->answered(
            $change,
            fn (Change $locked): array => $this->cameAsSheets($locked)
                ? (new ResultSheets($locked))->allTaken()
                : throw new UnusableInput("{$locked->account->name} says itself what it has taken"),
        );
    }

    /**
     * Of two answers at once, each counts once: the change is locked.
     *
     * @param \Closure(Change): array{taken: int, refused: int, unknown: int, problems: list<string>} $read
     */
    private function answered(Change $change, \Closure $read): JsonResponse
    {
        return DB::transaction(fn (): JsonResponse => $this->answeredLocked($change->locked(), $read), 5);
    }

    /** @param \Closure(Change): array{taken: int, refused: int, unknown: int, problems: list<string>} $read */
    private function answeredLocked(Change $change, \Closure $read): JsonResponse
    {
        if (! in_array($change->status, Move::Answer->beginsIn(), true)) {
            return Problem::response(422, Move::Answer->refusal($change));
        }
        try {
            $result = $read($change);
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
