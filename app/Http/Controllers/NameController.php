<?php

namespace App\Http\Controllers;

use App\Agreements\Agreements;
use App\Agreements\OffPattern;
use App\Changes\ByHand;
use App\Http\Problem;
use App\Http\Requests\ComposeNameRequest;
use App\Http\Requests\ReadNamesRequest;
use App\Http\Requests\RenameRequest;
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

    /** Drafts the change that gives the names that are meant. */
    public function change(RenameRequest $request, Client $client, Account $account): JsonResponse
    {
        $own = array_column($request->validated()['own'] ?? [], 'name', 'node');
        $texts = (new OffPattern($account, $this->agreements->names($client->id)))->renames($own, ByHand::MOST);

        return $texts === []
            ? Problem::response(422, "No name of {$account->name} is to become another: say what it is to be.")
            : ByHand::draft(
                $client,
                $account,
                count($texts) === 1 ? 'Rename one element' : 'Rename '.number_format(count($texts)).' elements',
                'Names as the patterns have them.',
                $texts,
                $request->user()->id,
            );
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
