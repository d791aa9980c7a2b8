<?php

namespace App\Http\Controllers;

use App\Dialects\Dialects;
use App\Http\Problem;
use App\Http\Requests\AddIntakeFileRequest;
use App\Http\Requests\BeginIntakeRequest;
use App\Http\Requests\IntakePartRequest;
use App\Http\Requests\LookAgainRequest;
use App\Http\Requests\OpenIntakeRequest;
use App\Http\Requests\ReadIntakeRequest;
use App\Http\Resources\IntakeView;
use App\Intakes\Beginning;
use App\Intakes\Confirming;
use App\Intakes\LookingAgain;
use App\Intakes\Receiving;
use App\Intakes\RowsToMend;
use App\Models\Client;
use App\Models\Intake;
use App\Models\IntakeFile;
use App\Models\IntakeStatus;
use App\Sheets\Files\Form;
use App\Sheets\Files\Writing;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** Accounts that people bring as sheets: files come in, are understood, looked at, and then imported. */
final class IntakeController
{
    public function __construct(private readonly Dialects $dialects) {}

    /** Those that wait for somebody to come back to them. */
    public function index(Client $client): JsonResponse
    {
        return new JsonResponse([
            'items' => $client
                ->intakes()
                ->where('status', '<>', IntakeStatus::Begun)
                ->withCount('files')
                ->latest('id')
                ->limit(50)
                ->get()
                ->map(
                    static fn (Intake $i): array => [
                        'id' => $i->id,
                        'status' => $i->status,
                        'dialect' => $i->dialect,
                        'name' => $i->name,
                        'files' => $i->files_count,
                        'done' => $i->done,
                        'at' => $i->updated_at->toIso8601String(),
                    ],
                )
                ->all(),
        ]);
    }

    public function store(OpenIntakeRequest $request, Client $client): JsonResponse
    {
        $wanted = $request->validated();
        $account = isset($wanted['account'])
            ? $client->accounts()->with('link')->findOrFail($wanted['account'])
            : $client
                ->accounts()
                ->with('link')
                ->where(['dialect' => $wanted['dialect'], 'external_id' => $wanted['number']])
                ->first();
        $why = match (true) {
            $this->dialects->find($client->id, $wanted['dialect']) === null => 'There is no platform '
                ."\"{$wanted['dialect']}\".",
            $account !== null && $account->link->reads_by !== 'sheet' => "{$account->name} comes from "
                ."{$account->link->title} itself. Import it there.",
            default => null,
        };
        if ($why !== null) {
            return Problem::response(422, $why);
        }
        $intake = $client
            ->intakes()
            ->create([
                'user_id' => $request->user()->id,
                'account_id' => $account?->id,
                'dialect' => $account->dialect ?? $wanted['dialect'],
                'number' => $account->external_id ?? $wanted['number'],
                'name' => $account->name ?? $wanted['name'],
                'status' => IntakeStatus::Open,
            ]);

        return $this->told($client, $intake->refresh(), 201);
    }

    public function show(Client $client, Intake $intake): JsonResponse
    {
        return $this->told($client, $intake);
    }

    public function destroy(Client $client, Intake $intake): JsonResponse
    {
        if ($intake->status === IntakeStatus::Begun) {
            return Problem::response(409, 'It is being imported. What it brings can’t be called back here.');
        }
        $intake->clear();
        $intake->delete();

        return new JsonResponse(null, 204);
    }

    public function addFile(AddIntakeFileRequest $request, Client $client, Intake $intake): JsonResponse
    {
        if ($intake->status === IntakeStatus::Begun) {
            return self::begun();
        }
        if ($intake->files()->count() >= config('limits.intake_files')) {
            return Problem::response(422, 'At most '.config('limits.intake_files').' files are taken at once.');
        }
        $file = $intake->files()->create($request->validated());

        return new JsonResponse(['id' => $file->id, 'received' => 0], 201);
    }

    /** The next part of a file. One that begins elsewhere is told where to begin. */
    public function part(IntakePartRequest $request, Client $client, Intake $intake, IntakeFile $file): JsonResponse
    {
        $wanted = $request->validated();
        $content = base64_decode($wanted['content'], true);
        if ($content === false) {
            return Problem::response(422, 'The part did not come whole. Send it again.');
        }
        if ($intake->status === IntakeStatus::Begun) {
            return self::begun();
        }
        $received = (new Receiving($intake, $file))->part((int) $wanted['from'], $content);

        return new JsonResponse(['id' => $file->id, 'received' => $received]);
    }

    public function removeFile(Client $client, Intake $intake, IntakeFile $file): JsonResponse
    {
        if ($intake->status === IntakeStatus::Begun) {
            return self::begun();
        }
        (new Receiving($intake, $file))->remove();

        return $this->told($client, $intake->refresh());
    }

    /** A table stands otherwise in its file than was found: it is looked at anew. */
    public function look(LookAgainRequest $request, Client $client, Intake $intake): JsonResponse
    {
        $problem = (new LookingAgain($intake))->at($request->validated());

        return $problem === null
            ? $this->told($client, $intake->refresh())
            : Problem::response($problem[0], $problem[1]);
    }

    /** What the tables mean is settled; now every row is read. */
    public function read(ReadIntakeRequest $request, Client $client, Intake $intake): JsonResponse
    {
        $problem = (new Confirming($intake, $this->dialects->of($client->id, $intake->dialect)))->read(
            $request->validated(),
            (array) $request->input('tables'),
        );

        return $problem === null
            ? $this->told($client, $intake->refresh(), 202)
            : Problem::response($problem[0], $problem[1]);
    }

    public function begin(BeginIntakeRequest $request, Client $client, Intake $intake): JsonResponse
    {
        $wanted = $request->validated();
        $begun = (new Beginning($intake))->begin(
            (int) $wanted['revision'],
            array_map(boolval(...), $wanted['whole']),
            $request->user()->id,
        );

        return $begun
            ? $this->told($client, $intake->refresh(), 202)
            : Problem::response(
                409,
                'This has changed since you looked at it, or is being imported already. Look at it once more.',
            );
    }

    /** What is wrong with its rows, of one kind or of all. */
    public function problems(Request $request, Client $client, Intake $intake): JsonResponse
    {
        $wanted = $request->validate(['code' => 'nullable|string|max:24', 'after' => 'nullable|integer|min:0']);
        $titles = array_column($intake->tables ?? [], 'title');

        return new JsonResponse([
            'items' => self::problemsOf($intake)
                ->when(
                    $wanted['code'] ?? null,
                    static fn (Builder $q, string $code): Builder => $q->where('code', $code),
                )
                ->where('id', '>', (int) ($wanted['after'] ?? 0))
                ->orderBy('id')
                ->limit(100)
                ->get()
                ->map(
                    static fn (object $p): array => [
                        'id' => $p->id,
                        'code' => $p->code,
                        'severity' => $p->severity,
                        'table' => $titles[$p->table] ?? '',
                        'row' => $p->row,
                        'column' => $p->column,
                        'says' => $p->says,
                    ],
                )
                ->all(),
        ]);
    }

    /** All of it as a sheet to take away; or the rows with errors, to mend and drop again. */
    public function problemsFile(
        Request $request,
        Client $client,
        Intake $intake,
    ): JsonResponse|BinaryFileResponse {
        $wanted = $request->validate(['as' => 'required|in:csv,xlsx,rows']);
        $file = $wanted['as'] === 'rows'
            ? (new RowsToMend($intake, $this->dialects->of($client->id, $intake->dialect)))->file()
            : Writing::files(
                [
                    'problems' => [
                        [
                            'title' => 'problems',
                            'form' => new Form($wanted['as']),
                            'rows' => static fn (): iterable => self::problemRows($intake),
                        ],
                    ],
                ],
                "problems-{$intake->id}",
            );

        return $file === null
            ? Problem::response(404, 'No row has an error.')
            : (new BinaryFileResponse($file['path'], 200, ['Content-Type' => $file['type']], false))
                ->setContentDisposition('attachment', $file['name'])
                ->deleteFileAfterSend();
    }

    /** @return iterable<list<string|int|null>> */
    private static function problemRows(Intake $intake): iterable
    {
        $titles = array_column($intake->tables ?? [], 'title');
        yield ['table', 'row', 'column', 'what', 'how to mend it'];
        foreach (self::problemsOf($intake)->lazyById(1000) as $p) {
            yield [$titles[$p->table] ?? '', $p->row, $p->column, $p->code, $p->says];
        }
    }

    private static function problemsOf(Intake $intake): Builder
    {
        return DB::table('intake_problems')->where('intake_id', $intake->id);
    }

    private function told(Client $client, Intake $intake, int $status = 200): JsonResponse
    {
        $intake->setRelation('client', $client);

        return (new IntakeView($intake, $this->dialects->of($client->id, $intake->dialect)))
            ->response()
            ->setStatusCode($status);
    }

    private static function begun(): JsonResponse
    {
        return Problem::response(409, 'It is being imported; nothing of it can be changed any more.');
    }
}
