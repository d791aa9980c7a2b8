<?php

namespace App\Http\Controllers;

use App\Accounts\Picture;
use App\Changes\ByHand;
use App\Http\Problem;
use App\Http\Requests\PictureRequest;
use App\Models\Account;
use App\Models\Client;
use App\Models\Finding;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** What is wrong in an account, its picture, and the change that mends a finding wherever the same text stands. */
final class FindingController
{
    public function index(Client $client, Account $account): JsonResponse
    {
        return new JsonResponse(
            [
                'items' => $account
                    ->findings()
                    ->with('node:id,name,level,external_id')
                    ->get()
                    ->map(
                        static fn (Finding $f): array => [
                            'id' => $f->id,
                            'code' => $f->code,
                            'severity' => $f->severity,
                            'node' => $f->node_id,
                            'level' => $f->node?->level,
                            'name' => $f->node?->name,
                            'slot' => $f->kind,
                            'custom' => $f->name === '' ? null : $f->name,
                            'at' => $f->at,
                            'length' => $f->length,
                            'key' => $f->key,
                            'reason' => $f->reason,
                            'fix' => $f->fix_says === null || $f->node_id === null
                                    ? null
                                    : ['says' => $f->fix_says, 'text' => $f->fix_text],
                            'count' => $f->count,
                        ],
                    )
                    ->all(),
            ],
            options: JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
        );
    }

    public function picture(PictureRequest $request, Client $client, Account $account): JsonResponse
    {
        $wanted = $request->validated();

        return new JsonResponse([
            'items' => Picture::of(
                $account,
                isset($wanted['root']) ? (int) $wanted['root'] : null,
                isset($wanted['from']) ? [(int) $wanted['from'], (int) $wanted['to']] : null,
            ),
        ]);
    }

    /** Drafts the change that puts the fix in place of the same text wherever it stands in the account. */
    public function mend(Request $request, Client $client, Finding $finding): JsonResponse
    {
        $account = $finding->account;
        if ($finding->fix_says === null || $finding->node_id === null || $finding->kind === null) {
            return Problem::response(
                422,
                'There is no fix that could be computed for this. The reason says what to look at.',
            );
        }
        $same = ByHand::sameText($account, $finding->node_id, $finding->kind, $finding->name);
        if ($same === []) {
            return Problem::response(
                409,
                'The text has changed since this was found. Look again: the findings are renewed after each import '
                    .'and change.',
            );
        }
        $texts = array_map(
            static fn (int $node): array => [
                'node' => $node,
                'kind' => $finding->kind,
                'name' => $finding->name,
                'text' => $finding->fix_text,
            ],
            $same,
        );

        return ByHand::draft(
            $client,
            $account,
            ucfirst($finding->fix_says)." ({$finding->code})",
            $finding->reason,
            $texts,
            $request->user()->id,
        );
    }
}
