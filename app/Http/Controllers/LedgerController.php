<?php

namespace App\Http\Controllers;

use App\Http\Requests\ListLedgerRequest;
use App\Ledger\Past;
use App\Ledger\PastDay;
use App\Models\Account;
use App\Models\Client;
use App\Models\Node;
use Carbon\CarbonImmutable;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/** Who wrote what, why and when; and what was live on any day. */
final class LedgerController
{
    private const PAGE = 100;

    public function index(ListLedgerRequest $request, Client $client): JsonResponse
    {
        $wanted = $request->validated();
        $rows = DB::table('ledger')
            ->join('users', 'users.id', 'ledger.user_id')
            ->join('changes', 'changes.id', 'ledger.change_id')
            ->join('accounts', 'accounts.id', 'ledger.account_id')
            ->leftJoin('nodes', 'nodes.id', 'ledger.node_id')
            ->where('ledger.client_id', $client->id)
            ->when($wanted['account'] ?? null, static fn ($q, $id) => $q->where('ledger.account_id', $id))
            ->when($wanted['node'] ?? null, static fn ($q, $id) => $q->where('ledger.node_id', $id))
            ->when($wanted['change'] ?? null, static fn ($q, $id) => $q->where('ledger.change_id', $id))
            ->when(
                $wanted['from'] ?? null,
                static fn ($q, $at) => $q->where('ledger.at', '>=', CarbonImmutable::parse($at)),
            )
            ->when(
                $wanted['to'] ?? null,
                static fn ($q, $at) => $q->where('ledger.at', '<', CarbonImmutable::parse($at)),
            )
            ->when($wanted['before'] ?? null, static fn ($q, $id) => $q->where('ledger.id', '<', $id))
            ->orderByDesc('ledger.id')
            ->limit(self::PAGE + 1)
            ->get([
                'ledger.id',
                'ledger.at',
                'users.name as who',
                'ledger.change_id',
                'changes.title',
                'changes.reason',
                'accounts.name as account',
                'ledger.node_id',
                'nodes.name as node_name',
                'nodes.level',
                'ledger.kind',
                'ledger.name',
                'ledger.before',
                'ledger.after',
                'ledger.found',
            ]);
        $items = $rows
            ->take(self::PAGE)
            ->map(
                static fn (object $r): array => [
                    'id' => $r->id,
                    'at' => CarbonImmutable::parse($r->at, 'UTC')->toIso8601String(),
                    'who' => $r->who,
                    'change' => $r->change_id,
                    'title' => $r->title,
                    'reason' => $r->reason,
                    'account' => $r->account,
                    'node' => $r->node_id,
                    'name' => $r->node_name,
                    'level' => $r->level,
                    'kind' => $r->kind,
                    'custom' => $r->name,
                    'before' => $r->before,
                    'after' => $r->after,
                    'found' => (bool) $r->found,
                ],
            )
            ->values()
            ->all();

        return new JsonResponse([
            'items' => $items,
            'next' => count($rows) > self::PAGE ? $items[self::PAGE - 1]['id'] : null,
        ]);
    }

    public function then(Request $request, Client $client, Node $node): JsonResponse
    {
        return new JsonResponse(Past::of($node, self::moment($request, 'at')));
    }

    public function differences(Request $request, Client $client, Account $account): JsonResponse
    {
        return new JsonResponse(
            Past::differences(
                $account,
                self::moment($request, 'from'),
                self::moment($request, 'to'),
                (int) ($request->validate(['offset' => 'integer|min:0|max:100000000'])['offset'] ?? 0),
            ),
        );
    }

    public function day(Request $request, Client $client, Account $account): JsonResponse
    {
        $wanted = $request->validate([
            'day' => 'required|date_format:Y-m-d',
            'arrived' => 'boolean',
            'offset' => 'integer|min:0|max:100000000',
        ]);
        $day = CarbonImmutable::parse($wanted['day'], $client->time_zone);
        $past = new PastDay($account, $day);

        return new JsonResponse($past->page((bool) ($wanted['arrived'] ?? false), (int) ($wanted['offset'] ?? 0)));
    }

    private static function moment(Request $request, string $name): CarbonImmutable
    {
        $wanted = $request->validate([$name => 'required|'.ListLedgerRequest::MOMENT]);

        return CarbonImmutable::parse($wanted[$name])->utc();
    }
}
