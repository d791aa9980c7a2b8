<?php

namespace App\Http\Controllers;

use App\Changes\Move;
use App\Http\Problem;
use App\Http\Requests\ReadSheetRequest;
use App\Http\Requests\WriteSheetRequest;
use App\Jobs\ApplyChange;
use App\Models\Change;
use App\Models\Client;
use App\Models\WriteState;
use App\Sheets\OutSheets;
use App\Sheets\ResultSheets;
use App\Sheets\Shape;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Vestigon\Core\Document\UnusableInput;

/** Changes that go out as sheets, and what platforms say of them. */
final class SheetController
{
    /** The change as a file. */
    public function write(WriteSheetRequest $request, Client $client, Change $change): JsonResponse|BinaryFileResponse
    {
        $wanted = $request->validated();
        try {
            $file = (new OutSheets($change, self::shape($change, $wanted)))->file();
        } catch (UnusableInput $e) {
            return Problem::response(422, ucfirst($e->getMessage()).'.');
        }

        return (new BinaryFileResponse($file['path'], 200, ['Content-Type' => $file['type']], false))
            ->setContentDisposition('attachment', $file['name'])
            ->deleteFileAfterSend();
    }

    /** The platform's result. When every write has its answer, the change goes on: it is read back and clicked. */
    public function read(ReadSheetRequest $request, Client $client, Change $change): JsonResponse
    {
        $wanted = $request->validated();
        $content = base64_decode($wanted['content'], true);
        if ($content === false) {
            return Problem::response(422, 'The file did not come whole. Choose it again.');
        }

        return $this->answered(
            $change,
            static fn (Change $locked): array => (new ResultSheets($locked, self::shape($locked, $wanted)->map))
                ->read($wanted['name'], $content),
        );
    }

    /** A person says that the platform has taken all of it. */
    public function taken(Client $client, Change $change): JsonResponse
    {
        return $this->answered(
            $change,
            static fn (Change $locked): array => (new ResultSheets($locked, self::shape($locked, [])->map))
                ->allTaken(),
        );
    }

    /** @param array<string, mixed> $wanted which map, where the account did not come as sheets, and in what file */
    private static function shape(Change $change, array $wanted): Shape
    {
        return $change->loadMissing('account.link')->account->link->reads_by === 'sheet'
            ? Shape::of($change->account)
            : Shape::mapped(
                $change->account,
                isset($wanted['map']) ? (int) $wanted['map'] : null,
                $wanted['as'] ?? 'csv',
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
}
