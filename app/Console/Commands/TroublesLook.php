<?php

namespace App\Console\Commands;

use App\Models\Client;
use App\Troubles\Troubles;
use Illuminate\Console\Command;

final class TroublesLook extends Command
{
    protected $signature = 'troubles:look';

    protected $description = 'Looks for what is wrong over all accounts, so that its history is known';

    public function handle(Troubles $troubles): void
    {
        foreach (Client::query()->lazyById() as $client) {
            $troubles->lookAgain($client, 1800);
        }
    }
}
