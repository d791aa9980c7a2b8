<?php

namespace App\Console\Commands;

use App\Agreements\Agreements;
use App\Arrivals\Matching;
use App\Jobs\LookAtLinks;
use App\Jobs\ProveAccount;
use App\Models\Agreement;
use App\Models\Plan;
use Illuminate\Console\Command;

final class AgreementsBegin extends Command
{
    protected $signature = 'agreements:begin';

    protected $description = 'Proves accounts against plans, words and names whose day has come';

    public function handle(Matching $matching): void
    {
        foreach ([Plan::class, Agreement::class] as $of) {
            foreach ($of::query()->where('begun', false)->with('client')->lazyById() as $agreed) {
                if ($agreed->from_day > Agreements::today($agreed->client)) {
                    continue;
                }
                // of two at once, one does it
                $isMine = $of::query()->whereKey($agreed->id)->where('begun', false)->update(['begun' => true]) === 1;
                if ($isMine && ($agreed instanceof Plan || $agreed->kind->matters())) {
                    ProveAccount::each($agreed->client->accounts());
                    $matching->again($agreed->client);
                }
                if ($isMine && $agreed instanceof Agreement && $agreed->kind->mattersForLinks()) {
                    LookAtLinks::dispatch($agreed->client_id);
                }
            }
        }
    }
}
