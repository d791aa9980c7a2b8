<?php

namespace App\Http\Controllers;

use App\Clicks\TestClick;
use App\Connectors\Connectors;
use App\Connectors\PlatformTrouble;
use App\Http\Problem;
use App\Models\Client;
use App\Models\Node;
use Illuminate\Http\JsonResponse;

/** Clicks a live ad for a test. */
final class ClickController
{
    public function __invoke(Client $client, Node $node, Connectors $connectors): JsonResponse
    {
        $plan = $client->plan();
        $node->load('account.link', 'account.client');
        if (! $node->is_ad || $plan === null) {
            return Problem::response(
                422,
                $plan === null
                    ? 'There is no plan yet to hold the click against. Write it first.'
                    : 'Only ads can be clicked. Choose one below it.',
            );
        }
        try {
            return new JsonResponse(
                (new TestClick($node->account, $connectors->to($node->account->link), $plan->read()))->of(
                    $node->id,
                ),
            );
        } catch (PlatformTrouble $e) {
            return Problem::response(502, $e->getMessage());
        }
    }
}
