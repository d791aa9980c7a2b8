<?php

namespace App\Http\Controllers;

use App\Agreements\Agreements;
use App\Agreements\OffPattern;
use App\Http\Requests\ComposeNameRequest;
use App\Http\Requests\ReadNamesRequest;
use App\Models\Account;
use App\Models\Client;
use App\Sheets\Files\Form;
use App\Sheets\Files\Writing;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Naming\PatternReader;
use Vestigon\Core\Naming\Patterns;
use Vestigon\Core\Naming\Trouble;

/** Names put together, and those that are off their pattern. */
final class NameController
{
    public function __construct(private readonly Agreements $agreements) {}

    public function compose(ComposeNameRequest $request, Client $client): JsonResponse
    {
        $pattern = PatternReader::read(new Cursor($request->input('document')));
        $composed = array_map(
            static fn (array $values): string|array => $pattern->compose(array_map(strval(...), $values)),
            $request->validated()['rows'],
        );

        return new JsonResponse([
            'items' => array_map(
                static fn (string|array $name): array => [
                    'name' => is_string($name) ? $name : null,
                    'trouble' => array_map(
                        static fn (Trouble $t): array => ['part' => $t->part, 'why' => $t->why],
                        is_string($name) ? [] : $name,
                    ),
                ],
                $composed,
            ),
        ]);
    }

    /** A sheet to rename by: every name of an account that is off, with the one that is meant. */
    public function file(Request $request, Client $client, Account $account): BinaryFileResponse
    {
        $as = $request->validate(['as' => 'required|in:csv,xlsx,ods'])['as'];
        $rows = (new OffPattern($account, $this->agreements->names($client->id)))->rows(...);
        $name = "names-{$client->slug}-{$account->external_id}";
        $file = Writing::files(['names' => [['title' => 'names', 'form' => new Form($as), 'rows' => $rows]]], $name);

        return (new BinaryFileResponse(
            $file['path'],
            200,
            [
                'Content-Type' => $file['type'],
                'Content-Disposition' => 'attachment; filename='
                    .preg_replace('/[^\w-]+/', '-', $name)
                    .".{$as}",
            ],
            false,
        ))->deleteFileAfterSend();
    }

    public function read(ReadNamesRequest $request, Client $client): JsonResponse
    {
        $account = $client->accounts()->findOrFail($request->validated()['account']);
        $patterns = $request->input('document') === null
            ? $this->agreements->names($client->id)
            : Patterns::read((new Cursor($request->input('document')))->at('patterns'));

        return new JsonResponse((new OffPattern($account, $patterns))->show());
    }
}
