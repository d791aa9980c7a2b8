<?php

namespace App\Http\Controllers;

use App\Dialects\Consequences;
use App\Dialects\DialectText;
use App\Http\Requests\ExplainClickRequest;
use App\Http\Requests\ReadPlaceholdersRequest;
use App\Http\Requests\WeighPlatformRequest;
use App\Models\Client;
use Illuminate\Http\JsonResponse;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Learn\Explained;
use Vestigon\Core\Learn\Placeholder;
use Vestigon\Core\Learn\Placeholders;
use Vestigon\Core\Learn\RuleChange;

/** Helps people to write a platform: from its help's text, from a real click, and by what their writing would do. */
final class LearnController
{
    /** A list of placeholders, pasted as a table or as running text. */
    public function placeholders(ReadPlaceholdersRequest $request, Client $client): JsonResponse
    {
        $read = Placeholders::in($request->validated('text'));

        return new JsonResponse([
            'open' => $read->open,
            'close' => $read->close,
            'isSure' => $read->isSure,
            'items' => array_map(static fn (Placeholder $p): array => $p->toArray(), $read->items),
        ]);
    }

    /** Which rules explain a real click's URL, or would. */
    public function explain(ExplainClickRequest $request, Client $client): JsonResponse
    {
        $read = DialectText::read($request->validated('text'));
        if ($read->document === null || $read->problems !== []) {
            return new JsonResponse(['problems' => $read->problems, 'changes' => null, 'values' => [], 'until' => 0]);
        }
        $told = Explained::of($read->document, $request->nodes(), $request->validated('url'));

        return new JsonResponse([
            'problems' => [],
            'changes' => $told->changes === null
                ? null
                : array_map(static fn (RuleChange $c): array => $c->toArray(), $told->changes),
            'values' => array_map(
                static fn (string $field, string $value): array => [$field, $value],
                array_keys($told->values),
                array_values($told->values),
            ),
            'until' => mb_strlen(mb_strcut($request->validated('url'), 0, $told->until)),
        ]);
    }

    /** What saving it would do to the proofs of the accounts on it. */
    public function weigh(WeighPlatformRequest $request, Client $client): JsonResponse
    {
        $read = DialectText::read($request->validated('text'));
        $isReadable = $read->document !== null && $read->problems === [];

        return new JsonResponse([
            'problems' => $read->problems,
            'accounts' => $isReadable
                ? (new Consequences($client))->of(DialectReader::read(new Cursor($read->document)))
                : [],
        ]);
    }
}
