<?php

namespace App\Http\Controllers;

use App\Accounts\Rows;
use App\Accounts\Trees;
use App\Models\Account;
use App\Models\Client;
use App\Models\Node;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Vestigon\Core\Dialect\Slot;

final class AccountController
{
    public function index(Client $client): JsonResponse
    {
        return new JsonResponse(['items' => $client->accounts()->orderBy('name')->get()->map(function (Account $account): array {
            $root = $account->nodes()->whereNull('parent_id')->first();
            $dialect = Trees::dialect($account);

            return [
                'id' => $account->id, 'name' => $account->name, 'externalId' => $account->external_id, 'dialect' => $account->dialect, 'platform' => $dialect->title, 'slots' => [...array_map(static fn (Slot $s): string => $s->kind->value, $dialect->slots), ...$dialect->customParameters === null ? [] : ['custom']],
                'root' => $root?->id, 'ads' => $root->ads ?? 0, 'proven' => $root->proven ?? 0, 'broken' => $root->broken ?? 0, 'untracked' => $root->untracked ?? 0,
                'planRevision' => $account->plan_revision, 'importedAt' => $account->imported_at?->toIso8601String(),
            ];
        })->all()]);
    }

    public function rows(Request $request, Client $client, Account $account): JsonResponse
    {
        $wanted = $request->validate([
            'parent' => 'nullable|integer', 'under' => 'nullable|integer',
            'q' => 'nullable|string|max:100',
            'state' => 'nullable|in:proven,broken,untracked',
            'offset' => 'nullable|integer|min:0',
            'limit' => 'nullable|integer|min:1|max:200',
        ]);

        $page = (new Rows($account, $client->plan()?->read()))->page(
            isset($wanted['parent']) ? (int) $wanted['parent'] : null, trim($wanted['q'] ?? ''), $wanted['state'] ?? null, (int) ($wanted['offset'] ?? 0), (int) ($wanted['limit'] ?? 100), isset($wanted['under']) ? (int) $wanted['under'] : null,
        );

        return new JsonResponse($page, options: JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE);
    }

    /** A node with its way up, to open a tree at it. */
    public function show(Client $client, Node $node): JsonResponse
    {
        $branch = Trees::branch($node->account, $node->id);

        return new JsonResponse(['account' => $node->account_id, 'isAd' => $node->is_ad, 'path' => array_map(
            static fn ($n, int $id): array => ['id' => $id, 'level' => $n->level, 'name' => $n->name, 'externalId' => $n->id], $branch->path($node->id)->nodes, $branch->ids($node->id),
        )]);
    }
}
