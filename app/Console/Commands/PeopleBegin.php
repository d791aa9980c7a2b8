<?php

namespace App\Console\Commands;

use App\SignIn\Invitations;
use Illuminate\Console\Command;

/** Prints the one-time address at which the first owner comes in; nothing once somebody is here. */
final class PeopleBegin extends Command
{
    protected $signature = 'people:begin';

    protected $description = 'Prints the address at which the first owner comes in';

    public function handle(Invitations $invitations): int
    {
        $link = $invitations->first();
        if ($link !== null) {
            $this->line($link);
        }

        return self::SUCCESS;
    }
}
