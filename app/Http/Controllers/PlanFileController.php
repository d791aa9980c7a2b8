<?php

namespace App\Http\Controllers;

use App\Accounts\Trees;
use App\Http\Requests\NamedFileRequest;
use App\Models\Client;
use App\Sheets\Files\Brought;
use App\Sheets\Files\Form;
use App\Sheets\Files\Opening;
use App\Sheets\Files\Writing;
use App\Support\DocumentText;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\Yaml\Yaml;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Plan\PlanSheet;

/** The plan out as a file and in again: JSON, YAML, or a sheet with a row a key and a column a platform. */
final class PlanFileController
{
    private const SHEETS = ['csv', 'xlsx', 'ods'];

    public function out(Request $request, Client $client): JsonResponse|Response|BinaryFileResponse
    {
        $as = $request->validate(['as' => 'required|in:json,yaml,'.implode(',', self::SHEETS)])['as'];
        $plan = $client->lastPlan() ?? abort(404);
        $attached = ['Content-Disposition' => "attachment; filename=plan-{$client->slug}-{$plan->revision}.{$as}"];
        if (! in_array($as, self::SHEETS, true)) {
            return new Response(
                $as === 'json'
                    ? json_encode($plan->document, JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE)
                    : Yaml::dump($plan->document, 8, 2),
                200,
                ['Content-Type' => $as === 'json' ? 'application/json' : 'application/yaml'] + $attached,
            );
        }
        $platforms = $client->accounts->map(Trees::dialect(...))->pluck('id')->unique()->values()->all();
        $rows = PlanSheet::rows($plan->read(), $platforms);
        $file = Writing::files(
            ['plan' => [['title' => 'plan', 'form' => new Form($as), 'rows' => static fn (): array => $rows]]],
            "plan-{$client->slug}-{$plan->revision}",
        );

        return (new BinaryFileResponse($file['path'], 200, ['Content-Type' => $file['type']] + $attached, false))
            ->deleteFileAfterSend();
    }

    /** A file as a plan; nothing is saved by it. */
    public function in(NamedFileRequest $request, Client $client): JsonResponse
    {
        ['name' => $name, 'content' => $content] = $request->validated();
        try {
            $document = preg_match('/\.(json|ya?ml)$/i', $name) === 1
                ? DocumentText::read(Brought::bytes($content))
                : $this->fromSheet($client, $name, $content);
            PlanReader::read(new Cursor($document));
        } catch (UnusableInput $e) {
            throw new UnusableInput("{$name}: ".ltrim($e->getMessage(), ': '));
        }

        return new JsonResponse(['document' => $document]);
    }

    /** @return array<mixed> */
    private function fromSheet(Client $client, string $name, string $content): array
    {
        $now = $client->lastPlan()->document ?? [
            'format' => PlanReader::FORMAT,
            'id' => 'plan',
            'title' => pathinfo($name, PATHINFO_FILENAME),
            'clickId' => 'required',
            'parameters' => [],
        ];
        $rows = Brought::file(
            $content,
            static fn (string $path): array => iterator_to_array(Opening::tables($path, $name)[0]->rows(), false),
        );

        return PlanSheet::document($rows, $now);
    }
}
