<?php

namespace App\Http\Controllers;

use App\Models\Client;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** How changes go out for a client: who has to say yes, and where test clicks may go. */
final class RulesController
{
    public function show(Client $client): JsonResponse
    {
        return new JsonResponse(['needsApproval' => $client->needs_approval, 'hosts' => $client->hosts ?? []]);
    }

    public function update(Request $request, Client $client): JsonResponse
    {
        $rules = $request->validate(
            ['needsApproval' => 'required|boolean', 'hosts' => 'present|array|max:200', 'hosts.*' => ['string', 'max:253', 'regex:/^(?=.{1,253}$)[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)+$/']],
            ['hosts.*.regex' => '“:input” is no host name. Write it like shop.example: lower case, no https:// and no path.'],
        );
        $client->update(['needs_approval' => $rules['needsApproval'], 'hosts' => array_values(array_unique($rules['hosts']))]);

        return $this->show($client);
    }
}
