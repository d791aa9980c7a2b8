<?php

namespace App\Http\Controllers;

use App\Accounts\Found;
use App\Accounts\Show;
use App\Dialects\Dialects;
use App\Dialects\DialectText;
use App\Http\Problem;
use App\Http\Requests\SavePlatformRequest;
use App\Http\Requests\TryPlatformRequest;
use App\Jobs\ProveAccount;
use App\Models\Client;
use App\Models\IntakeStatus;
use App\Models\OwnDialect;
use App\Watching\ReportLine;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Vestigon\Core\Account\NodeReader;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Findings\Inspector;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Settings;

/** The platforms that a client knows: read, tried out, written and shared. */
final class DialectController
{
    public function __construct(private readonly Dialects $dialects, private readonly ReportLine $line) {}

    public function index(Client $client): JsonResponse
    {
        $accounts = $client
            ->accounts()
            ->selectRaw('dialect, count(*) n')
            ->groupBy('dialect')
            ->pluck('n', 'dialect');
        $line = static fn (array $d, bool $own): array => [
            'id' => $d['id'],
            'title' => $d['title'],
            'family' => $d['family'],
            'about' => $d['about'] ?? '',
            'types' => $d['campaignTypes'] ?? [],
            'own' => $own,
            'accounts' => (int) ($accounts[$d['id']] ?? 0),
        ];
        $shipped = array_map(
            static fn (string $id): array => $line(Dialects::shippedDocument($id) ?? [], false),
            Shipped::ids(),
        );
        $own = $client
            ->ownDialects()
            ->orderBy('name')
            ->get()
            ->map(static fn (OwnDialect $d): array => $line($d->document, true))
            ->all();

        return new JsonResponse(['items' => [...$own, ...$shipped]]);
    }

    public function show(Client $client, string $dialect): JsonResponse
    {
        [$document, $revision] = $this->document($client, $dialect);

        return $document === null
            ? Problem::response(404, "There is no platform \"{$dialect}\" at {$client->name}.")
            : new JsonResponse([
                'document' => $document,
                'own' => $revision > 0,
                'accounts' => $client->accounts()->where('dialect', $dialect)->count(),
                'revision' => $revision,
                'yaml' => DialectText::write($document, 'yaml'),
            ]);
    }

    /** A file to share: JSON or YAML. */
    public function file(Request $request, Client $client, string $dialect): Response|JsonResponse
    {
        [$document] = $this->document($client, $dialect);
        if ($document === null) {
            return Problem::response(404, "There is no platform \"{$dialect}\" at {$client->name}.");
        }
        $as = $request->validate(['as' => 'required|in:json,yaml'])['as'];

        return new Response(DialectText::write($document, $as), 200, [
            'Content-Type' => $as === 'json' ? 'application/json' : 'application/yaml',
            'Content-Disposition' => 'attachment; filename="'
                .preg_replace('/[^a-z0-9-]/', '', $dialect)
                .".dialect.{$as}\"",
            'X-Content-Type-Options' => 'nosniff',
        ]);
    }

    /** Keeps a platform of the client's own. */
    public function update(SavePlatformRequest $request, Client $client): JsonResponse
    {
        $wanted = $request->validated();
        $read = DialectText::read($wanted['text']);
        if ($read->document === null || $read->problems !== []) {
            return new JsonResponse(
                [
                    'message' => 'The platform can\'t be kept yet: '
                        .count($read->problems)
                        .' things are wrong with it. What you typed is still here.',
                    'problems' => $read->problems,
                ],
                422,
            );
        }
        $saved = $this->dialects->save($client, $read->document, (int) $wanted['revision'], $request->user()->id);
        if ($saved !== null) {
            ProveAccount::each($client->accounts()->where('dialect', $saved->name));
        }

        return $saved === null
            ? Problem::response(
                409,
                'Somebody else has saved this platform since you opened it. Yours is still here: open theirs in '
                    .'another window, compare, then save again.',
            )
            : $this->show($client, $saved->name);
    }

    public function destroy(Client $client, string $dialect): JsonResponse
    {
        $accounts = $client->accounts()->where('dialect', $dialect)->count();
        if ($client->intakes()->where('dialect', $dialect)->where('status', '<>', IntakeStatus::Begun)->exists()) {
            return Problem::response(409, 'Sheets of this platform are being brought in. Give them up first.');
        }
        if ($accounts > 0) {
            return Problem::response(
                409,
                "{$accounts} of {$client->name}'s accounts are on this platform. What is known of them would be lost "
                    .'without it, so it stays.',
            );
        }

        return $client->ownDialects()->where('name', $dialect)->delete() > 0
            ? new JsonResponse(null, 204)
            : Problem::response(
                404,
                "There is no platform \"{$dialect}\" of {$client->name}'s own. Shipped ones can't be removed.",
            );
    }

    /** A click on a platform as it is being written: what is wrong with the document, or what the click sends. */
    public function tryOut(TryPlatformRequest $request, Client $client): JsonResponse
    {
        $wanted = $request->validated();
        $read = DialectText::read($wanted['text']);
        if ($read->document === null || $read->problems !== []) {
            return new JsonResponse([
                'problems' => $read->problems,
                'document' => $read->document,
                'click' => null,
            ]);
        }
        $dialect = DialectReader::read(new Cursor($read->document));
        foreach ($wanted['nodes'] ?? [] as $node) {
            if ($dialect->level($node['level']) === null) {
                // the levels have just been rewritten: who asks sees them in the document and asks again
                return new JsonResponse(['problems' => [], 'document' => $read->document, 'click' => null]);
            }
        }
        $filled = static fn (array $map): array => array_filter($map, static fn (?string $v): bool => $v !== null);
        $nodes = array_map(
            static fn (array $n, int $i): array => array_filter(
                [
                    'level' => $n['level'],
                    'id' => (string) (7100 + $i),
                    'name' => $n['name'] ?? ucfirst($n['level']),
                    'type' => $n['type'] ?? null,
                    'slots' => $filled($n['slots'] ?? []),
                    'custom' => $filled($n['custom'] ?? []),
                    'attributes' => $filled($n['attributes'] ?? []),
                ],
                static fn (mixed $v): bool => $v !== null && $v !== [],
            ),
            $wanted['nodes'] ?? [],
            array_keys($wanted['nodes'] ?? []),
        );
        $path = NodeReader::path(new Cursor($nodes, 'nodes'), $dialect);
        $settings = Settings::read(
            new Cursor(
                array_filter($wanted['settings'] ?? [], static fn (mixed $v): bool => $v !== null),
                'settings',
            ),
        );
        $reader = new TemplateReader($dialect);
        $context = $filled($wanted['context'] ?? []);
        $route = Route::of(
            $path,
            $settings,
            $client->trackers->map->hop()->all(),
            $reader,
        );
        $trace = $route->trace($context);
        $inspector = new Inspector($this->dialects->rules(), $reader);
        $findings = Inspector::sorted([
            ...$inspector->path($path, $settings),
            ...$inspector->click($path, $trace, $context, $settings, $route->page($context)),
        ]);

        return new JsonResponse(
            [
                'problems' => [],
                'document' => $read->document,
                'click' => [
                    'ribbon' => Show::ribbon($trace),
                    'clickUrl' => $trace->clickUrl,
                    'backgroundUrl' => $trace->backgroundUrl,
                    'trail' => array_map(
                        static fn (array $s): array => ['url' => $s[0], 'stop' => $s[1]->value],
                        $trace->trail,
                    ),
                    'arrival' => $trace->arrival,
                    'line' => $this->line->of($client, Show::landed($trace), $path, $client->plan()?->read()),
                    'findings' => Found::show(
                        $findings,
                        array_combine(
                            array_map(static fn (array $n): string => "{$n['level']} {$n['id']}", $nodes),
                            array_keys($nodes),
                        ),
                    ),
                ],
            ],
            options: JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
        );
    }

    /** @return array{array<string, mixed>|null, int} the document, and its revision: 0 for a shipped one */
    private function document(Client $client, string $id): array
    {
        $own = $client->ownDialects()->where('name', $id)->first();

        return $own === null ? [Dialects::shippedDocument($id), 0] : [$own->document, $own->revision];
    }
}
