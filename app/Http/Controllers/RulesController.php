<?php

namespace App\Http\Controllers;

use App\Events\Noteworthy;
use App\Http\Checked;
use App\Http\Requests\HostName;
use App\Http\Resources\AuditLine;
use App\Models\AuditEntry;
use App\Models\Client;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/** How changes go out for a client: who has to say yes, and where test clicks may go. */
final class RulesController
{
    public function show(Client $client): JsonResponse
    {
        return new JsonResponse(['needsApproval' => $client->needs_approval, 'hosts' => $client->hosts ?? []]);
    }

    /** Who gave and took roles and changed rules. */
    public function audit(Client $client): JsonResponse
    {
        return new JsonResponse([
            'items' => AuditLine::collection(AuditEntry::query()->where('client_id', $client->id)->lately()->get()),
        ]);
    }

    public function update(Request $request, Client $client): JsonResponse
    {
        $rules = Checked::input(
            $request,
            [
                'needsApproval' => 'required|boolean',
                'hosts' => 'present|array|max:200',
                'hosts.*' => [
                    'string',
                    'max:253',
                    'regex:'.HostName::PATTERN,
                ],
            ],
            ['hosts.*.regex' => HostName::WRONG],
        );
        $before = ['needsApproval' => $client->needs_approval, 'hosts' => $client->hosts ?? []];
        $now = [
            'needsApproval' => $rules['needsApproval'],
            'hosts' => array_values(array_unique($rules['hosts'])),
        ];
        DB::transaction(static function () use ($client, $before, $now, $request): void {
            $client->update(['needs_approval' => $now['needsApproval'], 'hosts' => $now['hosts']]);
            Noteworthy::dispatch('rules-changed', $request->user()->id, $client->id, [
                'before' => $before,
                'now' => $now,
            ]);
        });

        return $this->show($client);
    }
}
