<?php

namespace App\Dialects;

use App\Accounts\WhatIf;
use App\Models\Client;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Proof\Survey;

/** What another revision of a platform would do to the proofs of the accounts that are on it; nothing is kept. */
final readonly class Consequences
{
    public function __construct(private Client $client) {}

    /** @return list<array<string, mixed>> one for each account on the platform; none without a plan */
    public function of(Dialect $dialect): array
    {
        $plan = $this->client->plan()?->read();
        $on = $plan === null ? [] : $this->client->accounts()->where('dialect', $dialect->id)->orderBy('name')->get();
        $all = [];
        foreach ($on as $account) {
            $surveyed = static fn (Account $some): Survey => new Survey($some->on($dialect), $plan);
            $all[] = ['id' => $account->id, 'name' => $account->name, ...WhatIf::of($account, $surveyed)];
        }

        return $all;
    }
}
