<?php

namespace App\Http\Controllers;

use App\Accounts\Branches;
use App\Accounts\Rows;
use App\Accounts\Sends;
use App\Accounts\SetApart;
use App\Accounts\Switched;
use App\Accounts\Trees;
use App\Http\Requests\ListRowsRequest;
use App\Http\Requests\ListSendsRequest;
use App\Models\Account;
use App\Models\Client;
use App\Models\Node;
use App\Models\OutsideChange;
use Illuminate\Http\JsonResponse;
use Vestigon\Core\Dialect\Slot;

final class AccountController
{
    public function index(Client $client): JsonResponse
    {
        $accounts = $client->accounts()->with('link')->orderBy('name')->get();
        $roots = Node::query()
            ->whereIn('account_id', $accounts->modelKeys())
            ->whereNull('parent_id')
            ->get()
            ->keyBy('account_id');
        $gone = Node::onlyTrashed()
            ->whereIn('account_id', $accounts->modelKeys())
            ->toBase()
            ->groupBy('account_id')
            ->selectRaw('account_id, count(*) n')
            ->pluck('n', 'account_id');
        $apart = SetApart::counts($accounts->modelKeys());
        $switched = Switched::of($roots->modelKeys());
        $outside = OutsideChange::counts($accounts->modelKeys());
        $revision = $client->plan()?->revision;

        return new JsonResponse([
            'items' => $accounts
                ->map(function (Account $account) use (
                    $roots,
                    $gone,
                    $apart,
                    $switched,
                    $outside,
                    $revision,
                ): array {
                    $root = $roots[$account->id] ?? null;
                    $dialect = Trees::dialect($account);

                    return [
                        'id' => $account->id,
                        'name' => $account->name,
                        'externalId' => $account->external_id,
                        'connection' => $account->connection_id,
                        'readsBy' => $account->link->reads_by,
                        'dialect' => $account->dialect,
                        'platform' => $dialect->title,
                        'slots' => [
                            ...array_map(static fn (Slot $s): string => $s->kind->value, $dialect->slots),
                            ...$dialect->customParameters === null ? [] : ['custom'],
                        ],
                        'switches' => Switched::show($dialect, $switched[$root?->id] ?? []),
                        'root' => $root?->id,
                        'ads' => $root->ads ?? 0,
                        'proven' => $root->proven ?? 0,
                        'broken' => $root->broken ?? 0,
                        'untracked' => $root->untracked ?? 0,
                        'gone' => (int) ($gone[$account->id] ?? 0),
                        'apart' => $apart[$account->id] ?? 0,
                        'outside' => $outside[$account->id] ?? OutsideChange::NONE,
                        'planRevision' => $account->plan_revision,
                        'proving' => $account->imported_at !== null && $account->plan_revision !== $revision,
                        'importedAt' => $account->imported_at?->toIso8601String(),
                    ];
                })
                ->all(),
        ]);
    }

    public function rows(ListRowsRequest $request, Client $client, Account $account): JsonResponse
    {
        $wanted = $request->validated();

        $page = (new Rows($account, $client->plan()?->read()))->page(
            isset($wanted['parent']) ? (int) $wanted['parent'] : null,
            trim($wanted['q'] ?? ''),
            $wanted['state'] ?? null,
            (int) ($wanted['offset'] ?? 0),
            (int) ($wanted['limit'] ?? 100),
            isset($wanted['under']) ? (int) $wanted['under'] : null,
        );

        return new JsonResponse($page, options: JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE);
    }

    /** What the ads below some elements send, by the plan's keys. */
    public function sends(ListSendsRequest $request, Client $client, Account $account): JsonResponse
    {
        return new JsonResponse([
            'lookedAt' => Sends::LOOKED_AT,
            'items' => array_map(
                static fn (array $i): array => ['keys' => (object) $i['keys']] + $i,
                (new Sends($account))->below(
                    array_map(intval(...), $request->validated()['nodes']),
                    $client->plan()?->read()->keys() ?? [],
                ),
            ),
        ]);
    }

    /** What the last import brought and could not be taken over. */
    public function apart(Client $client, Account $account): JsonResponse
    {
        return new JsonResponse(['items' => SetApart::of($account)]);
    }

    /** A node with its way up, to open a tree at it. */
    public function show(Client $client, Node $node): JsonResponse
    {
        $branch = Branches::of($node->account, $node->id);

        return new JsonResponse([
            'account' => $node->account_id,
            'isAd' => $node->is_ad,
            'goneAt' => $node->gone_at?->toIso8601String(),
            'path' => array_map(
                static fn ($n, int $id): array => [
                    'id' => $id,
                    'level' => $n->level,
                    'name' => $n->name,
                    'externalId' => $n->id,
                ],
                $branch->path($node->id)->nodes,
                $branch->ids($node->id),
            ),
        ]);
    }
}
