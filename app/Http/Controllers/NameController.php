<?php

namespace App\Http\Controllers;

use App\Agreements\Agreements;
use App\Agreements\OffPattern;
use App\Http\Requests\ComposeNameRequest;
use App\Http\Requests\ReadNamesRequest;
use App\Models\Client;
use Illuminate\Http\JsonResponse;
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
        $name = $pattern->compose(array_map(strval(...), $request->validated()['values']));

        return new JsonResponse([
            'name' => is_string($name) ? $name : null,
            'trouble' => array_map(
                static fn (Trouble $t): array => ['part' => $t->part, 'why' => $t->why],
                is_string($name) ? [] : $name,
            ),
        ]);
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
