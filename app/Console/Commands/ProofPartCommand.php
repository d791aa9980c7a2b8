<?php

namespace App\Console\Commands;

use App\Accounts\Between;
use App\Accounts\ProofPart;
use App\Accounts\ProofTurn;
use App\Models\Account;
use App\Support\Beside;
use App\Support\Overtaken;
use Illuminate\Console\Command;

/** One of the processes that share the ads of a proof. What it writes is for the process that began it. */
final class ProofPartCommand extends Command
{
    protected $signature = 'proof:part {account} {turn} {above} {upTo}';

    protected $description = 'Proves some of an account\'s ads, for the process that has begun the proof';

    protected $hidden = true;

    public function handle(ProofPart $part): int
    {
        [$account, $turn] = [(int) $this->argument('account'), (int) $this->argument('turn')];
        try {
            $proven = $part->prove(
                Account::query()->with('client')->findOrFail($account),
                new ProofTurn($account, $turn),
                new Between((int) $this->argument('above'), (int) $this->argument('upTo')),
            );
        } catch (Overtaken) {
            return Overtaken::EXIT;
        }
        $this->output->write(Beside::written($proven));

        return self::SUCCESS;
    }
}
